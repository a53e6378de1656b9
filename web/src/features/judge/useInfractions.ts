import { useState } from 'react';
import type { CatchView } from '@lauta/contract';
import type { Infraction } from '@lauta/core/rules';
import { standingDecision } from './preview.ts';

/** The infractions that a judge has confirmed: at first those of the decision that stands. */
export function useInfractions(caught: CatchView): [readonly Infraction[], (infraction: Infraction) => void] {
  const [infractions, setInfractions] = useState<readonly Infraction[]>(() => {
    const standing = standingDecision(caught);
    return standing && 'infractions' in standing ? standing.infractions : [];
  });
  const toggle = (infraction: Infraction): void =>
    setInfractions((former) =>
      former.includes(infraction) ? former.filter((one) => one !== infraction) : [...former, infraction],
    );
  return [infractions, toggle];
}
