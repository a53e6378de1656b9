import type { Infraction } from './infractions.ts';
import { keptRules } from './keptRules.ts';
import type { Penalty, RuleSheet } from './ruleSheet.ts';

/** One way to lose a fish's points in an event. */
export type WayToLose =
  | { kind: 'infraction'; infraction: Infraction; penalty: Penalty }
  | { kind: 'outside-hours' }
  | { kind: 'board-not-approved' }
  | { kind: 'species' }
  | { kind: 'under-minimum' }
  | { kind: 'over-limit'; bagLimit: number };

const MOST = 10;

/**
 * The ways in which a fish loses points under a sheet, the dearest first, ten at most: what disqualifies, then what
 * the rules themselves leave out, then deductions by their size.
 */
export function waysToLose(written: RuleSheet): WayToLose[] {
  const sheet = keptRules(written);
  const infractions = sheet.penalties.map(({ infraction, penalty }): WayToLose & { kind: 'infraction' } => ({
    kind: 'infraction',
    infraction,
    penalty,
  }));
  const stepsOf = ({ penalty }: { penalty: Penalty }): number =>
    penalty.kind === 'deduction' ? penalty.steps : 0;
  const general: WayToLose[] = [{ kind: 'outside-hours' }, { kind: 'board-not-approved' }];
  if (sheet.species.some(({ counts }) => !counts)) general.push({ kind: 'species' });
  if (sheet.species.some(({ counts, minimumSteps }) => counts && minimumSteps !== null))
    general.push({ kind: 'under-minimum' });
  general.push({ kind: 'over-limit', bagLimit: sheet.bagLimit });
  const deductions = infractions
    .filter(({ penalty }) => penalty.kind === 'deduction')
    .sort((a, b) => stepsOf(b) - stepsOf(a));
  const disqualifying = infractions.filter(({ penalty }) => penalty.kind === 'disqualification');
  // Something of each: a list of disqualifications alone would hide what costs most fish a quarter inch.
  const room = MOST - general.length;
  const fewest = Math.min(deductions.length, Math.ceil(room / 3));
  const first = disqualifying.slice(0, room - fewest);
  return [...first, ...general, ...deductions].slice(0, MOST);
}
