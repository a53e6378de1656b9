import { countWords } from './count.ts';
import type { RuleSheet } from '@lauta/core/rules';
import { formatSteps } from '@lauta/core/units';
import { speciesName } from './catch.ts';

export const KIND_WORDS: Record<string, string> = {
  'event.create': 'event created',
  'rules.publish': 'rule sheet published',
  'board.add': 'kind of board added',
  'people.add': 'person added',
  'people.accept': 'roles taken up',
  'people.unaccept': 'roles to be taken up anew',
  'people.remove': 'roles taken away',
  'waters.publish': 'waters published',
  'captures.tell': 'captures told',
  'catch.announce': 'catch announced',
  'catch.claim': 'catch claimed',
  'catch.judge': 'catch decided',
  'catch.answer': 'request answered',
  'catch.handle': 'release told',
  'catch.time': 'fish timed by a second phone',
  'catch.clip': 'clip of a release added',
  'frames.ask': 'frames asked for',
  'frame.send': 'frame sent',
  'well.enter': 'well kept',
  'weigh-in.enter': 'weighed in',
  'specimen.record': 'specimen recorded',
  'results.declare': 'results declared',
  'codes.reveal': 'time of the codes set',
  'catch.withdraw': 'catch withdrawn',
  'catch.restore': 'withdrawal undone',
};

/** What an entry is about, from its body alone: it holds no names. */
export function entryWords(
  kind: string,
  body: Record<string, unknown>,
  sheet: RuleSheet | undefined,
): string {
  const length = (steps: unknown): string =>
    sheet && typeof steps === 'number' ? formatSteps(steps, sheet.measure.step) : '';
  switch (kind) {
    case 'captures.tell':
      return Array.isArray(body['captures']) ? `${body['captures'].length} signed` : '';
    case 'catch.announce':
      return '';
    case 'catch.claim':
      return `${length(body['claimedSteps'])}, ${sheet ? speciesName(sheet, String(body['speciesId'])) : ''}`;
    case 'catch.judge':
      return DECISION_WORDS[String(body['kind'])]?.replace('…', length(body['steps'])) ?? '';
    case 'weigh-in.enter':
      return Array.isArray(body['entries'])
        ? body['entries']
            .map((one) => String((one as { act?: { kind?: unknown } }).act?.kind).replaceAll('-', ' '))
            .join(', ')
        : '';
    case 'well.enter':
      return Array.isArray(body['entries']) ? countWords(body['entries'].length, 'entry', 'entries') : '';
    case 'people.accept':
    case 'people.remove':
    case 'people.add':
      return Array.isArray(body['roles']) ? body['roles'].join(', ') : '';
    case 'results.declare':
      return body['isOfficial'] ? 'official' : 'open again';
    case 'board.add':
      return String(body['boardId']);
    case 'rules.publish':
    case 'waters.publish':
      return `version ${String(body['version'])}`;
    default:
      return '';
  }
}

const DECISION_WORDS: Record<string, string> = {
  accepted: 'accepted at …',
  refused: 'refused',
  'sent-back': 'sent back',
  reopened: 'taken back',
};

export const FAULT_WORDS: Record<string, string> = {
  empty: 'the record is empty',
  headless: 'the record’s beginning is missing',
  'no-head': 'nothing says where the record ends',
  'head-not-signed': 'where the record ends is not signed by this installation',
  'time-runs-back': 'its time is before that of the entry before',
  'row-without-entry': 'no entry speaks of it',
  'record-missing': 'what it speaks of is gone',
  'kind-not-known': 'it is of a kind that cannot be checked',
  'commitment-missing': 'what it commits to is gone',
  'commitment-extra': 'something stands there that it does not commit to',
  missing: 'it is missing',
  altered: 'its bytes are not those that were hashed',
  'not-canonical': 'its bytes are not in canonical form',
  'wrong-seq': 'its number is not its place',
  'wrong-event': 'it belongs to another event',
  'broken-link': 'it does not hold the hash of the one before',
  'commitment-differs': 'what it commits to was altered',
  'record-differs': 'what is in the database is not what it speaks of',
  'photograph-differs': 'the photograph is not the one it speaks of',
  'board-differs': 'the kind of board is not the one it speaks of',
  'waters-differ': 'the waters are not those it speaks of',
  'capture-differs': 'what a device signed is not what it speaks of',
  'sheet-differs': 'the rule sheet is not the one it speaks of',
};
