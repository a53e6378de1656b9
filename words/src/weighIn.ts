import { countWords } from './count.ts';
import type {
  ScaleDoubt,
  TicketPenaltyKind,
  TicketState,
  WeighInAct,
  WeighInRefusal,
} from '@lauta/core/weigh-in';

export const STATE_WORDS: Record<TicketState, string> = {
  waiting: 'waits',
  called: 'called',
  checked: 'bag checked',
  weighed: 'weighed, to be confirmed',
  confirmed: 'to be signed',
  signed: 'signed',
};

export const PENALTY_KIND_WORDS: Record<TicketPenaltyKind, (count: number) => string> = {
  dead: (count) => `for ${count} dead`,
  short: (count) => `for ${count} short`,
  'over-limit': (count) => `for ${count} over the limit`,
  late: (count) => `for ${countWords(count, 'minute', 'minutes')} late`,
};

export const REFUSAL_WORDS: Record<WeighInRefusal, string> = {
  'no-such-ticket': 'There is no such bag any more.',
  'no-such-scale': 'This scale is not described yet.',
  'entrant-queued': 'This boat has a number today already.',
  'bad-count': 'These counts do not fit: short ones are among the fish of the bag.',
  'bad-weight': 'No bag weighs that. Read the scale again.',
  'tare-over-gross': 'The wet bag cannot weigh more than the bag with its fish.',
  'over-capacity': 'More than this scale can weigh: weigh the bag in two parts on another one.',
  'not-checked': 'Check the bag first: alive, dead, short.',
  'not-weighed': 'Weigh the bag first.',
  'same-person': 'Another person confirms what you entered.',
  'not-confirmed': 'A second person confirms the weight before it is signed.',
  'reason-wanted': 'This ticket was signed: say why it is changed.',
  'big-fish-over-bag': 'The big fish cannot weigh more than its bag.',
  'empty-signature': 'Nothing is drawn yet.',
};

export const SCALE_DOUBT_WORDS: Record<ScaleDoubt, string> = {
  unknown: 'This scale is not described yet.',
  unchecked: 'This scale was not checked today: a known weight on it before the first bag.',
  'outside-tolerance':
    'This scale was off by more than its class allows when it was checked last. Use another one.',
  'under-least-load': 'Lighter than such a scale is meant to weigh: less sure than its steps.',
};

export function actWords(act: WeighInAct): string {
  switch (act.kind) {
    case 'queued':
      return `number ${act.number} given`;
    case 'called':
      return 'called';
    case 'checked':
      return 'bag checked';
    case 'weighed':
      return 'weighed';
    case 'big-fish':
      return 'big fish';
    case 'confirmed':
      return 'confirmed';
    case 'signed':
      return `signed by the ${act.signer.replace('-', ' ')}`;
    case 'released':
      return 'fish released';
    case 'scale':
      return 'scale described';
    case 'scale-check':
    case 'scale-repeat':
      return 'scale checked';
    case 'undone':
      return 'taken back';
  }
}
