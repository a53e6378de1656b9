import type { Craft, GateStep, PrepareGroup } from '@lauta/core/planning';
import type { WayToLose } from '@lauta/core/rules';
import { formatSteps, type StepId } from '@lauta/core/units';
import { INFRACTION_WORDS } from './catch.ts';

export const CRAFT_WORDS: Record<Craft, string> = { kayak: 'kayak', boat: 'boat', bank: 'bank' };

export const GROUP_WORDS: Record<PrepareGroup, string> = {
  'hook-and-line': 'Hook and line',
  landing: 'Landing',
  measuring: 'Measuring',
  photographing: 'Photographing',
  'well-and-scale': 'Well and scale',
  safety: 'Safety',
};

export const GATE_WORDS: Record<GateStep, string> = {
  'board-wet': 'board wet',
  'card-down': 'card down',
  'camera-open': 'camera open',
  'hands-wet': 'hands wet',
};

/** A way to lose points, and what it costs. */
export function wayWords(way: WayToLose, step: StepId): string {
  switch (way.kind) {
    case 'infraction':
      return way.penalty.kind === 'disqualification'
        ? `${INFRACTION_WORDS[way.infraction]}: the fish does not count`
        : `${INFRACTION_WORDS[way.infraction]}: ${formatSteps(way.penalty.steps, step)} off`;
    case 'outside-hours':
      return 'caught before lines-in or after lines-out: marked for the judge';
    case 'board-not-approved':
      return 'a board that the event has not approved';
    case 'species':
      return 'a kind of fish that does not count';
    case 'under-minimum':
      return 'a fish under its minimum';
    case 'over-limit':
      return `more fish than the ${way.bagLimit} that count: the smaller ones fall out`;
  }
}
