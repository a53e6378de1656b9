import { useEffect, useRef } from 'react';
import { useCareChoices } from '../../care/careChoices.ts';
import { giveHint } from '../../care/giveHint.ts';

/** A tone, once, when the pump has been off for as long as it may. */
export function usePumpTone(minutesLeft: number | null): void {
  const { hints } = useCareChoices();
  const isOver = minutesLeft !== null && minutesLeft <= 0;
  const told = useRef(false);
  useEffect(() => {
    if (!isOver) told.current = false;
    else if (!told.current) {
      told.current = true;
      giveHint(hints, { beeps: 3, words: 'Pump on' });
    }
  }, [isOver, hints]);
}
