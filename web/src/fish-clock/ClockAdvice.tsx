import type { ReactNode } from 'react';
import { hookAdvice, isBoardHot, isLiftForbidden, type CatchClock } from '@lauta/core/care';
import { HOOK_ADVICE_WORDS } from '@lauta/words/hazards';
import type { CareChoices } from '../care/careChoices.ts';
import type { RunningCatch } from './runningCatch.ts';
import { SchoolLines } from '../care/SchoolLines.tsx';

/** What to do in this phase, and what the chosen schools say of it. */
export function ClockAdvice({
  clock,
  running,
  choices,
}: {
  clock: CatchClock;
  running: RunningCatch;
  choices: CareChoices;
}) {
  const lines: ReactNode[] = [];
  if (clock.phase === 'net') {
    if (isLiftForbidden(choices))
      lines.push(<b key="frost">Air below freezing: no lift. Eyes and gills freeze; measure it in the water or let it go.</b>); // prettier-ignore
    if (isBoardHot(choices)) lines.push('Hot day: pour water over the board again before this lift.');
    for (const code of hookAdvice(running.hookPlace, running.bleeds).codes)
      lines.push(HOOK_ADVICE_WORDS[code]);
  }
  return (
    <>
      {lines.length > 0 && (
        <ul className="grid gap-1">
          {lines.map((line, i) => (
            <li key={i}>{line}</li>
          ))}
        </ul>
      )}
      {clock.phase === 'fight' && <SchoolLines place="landing" />}
      {clock.phase === 'net' && <SchoolLines place="lift" />}
      {clock.phase === 'air' && <SchoolLines place="photographs" />}
      {clock.phase === 'over' && <SchoolLines place="release" />}
    </>
  );
}
