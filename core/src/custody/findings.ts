import { CLOCK_SLACK_MS, FASTEST_M_S, POSITION_SLACK_M } from '../file-evidence/index.ts';
import { distanceM, worstOf, type Finding, type Tone } from '../evidence/index.ts';
import type { PlaceOnWaters } from '../waters/index.ts';
import { firstFormer, type CaptureStatement, type Fix } from './statement.ts';
import type { CatchId, EventId, KeyId } from '../ids.ts';

/** Checks of how a photograph came from its capture to the server; ids are stable. */
export const CUSTODY_CHECKS = [
  'unsigned',
  'photograph-altered',
  'chosen-file',
  'signature-broken',
  'key-unknown',
  'key-of-another',
  'key-revoked',
  'key-lost',
  'key-late',
  'second-phone',
  'partner-phone',
  'chain-broken',
  'capture-missing',
  'clock-set-back',
  'clock-restarted',
  'device-clock-off',
  'device-time-outside',
  'identifier-otherwise',
  'device-place-missing',
  'device-place-outside',
  'device-too-far-too-soon',
  'first-heard',
  'claimed-otherwise',
  'claimed-twice',
] as const;
export type CustodyCheck = (typeof CUSTODY_CHECKS)[number];

/** What a claim may say otherwise than what was announced ahead of it. */
export type AnnouncedFact = 'species' | 'length' | 'code' | 'photograph';

/** Why a check of the way here says what it says, with the facts of each. */
export interface CustodyReasons {
  'file-signed': unknown;
  'file-chosen': unknown;
  'file-of-none': unknown;
  'file-unsigned': unknown;
  'signature-broken': unknown;
  'key-unknown': unknown;
  'key-of-another': unknown;
  'key-revoked': unknown;
  'paired-phone': unknown;
  'earlier-device-lost': unknown;
  'earlier-device': unknown;
  'chain-forked': unknown;
  'chain-first': unknown;
  'chain-begins-elsewhere': unknown;
  'capture-before-missing': unknown;
  'chain-other-before': unknown;
  'chain-linked': unknown;
  'clock-ran-on': unknown;
  'reopened-steady': unknown;
  'reopened-unknown': unknown;
  'clock-uncompared': unknown;
  'clock-right': unknown;
  'signed-within': unknown;
  'signed-outside': unknown;
  'no-position': unknown;
  'way-possible': unknown;
  'code-as-signed': unknown;
  'code-otherwise': unknown;
  'key-late': { byMs: number };
  /** Forward where it is over 0. */
  'clock-set': { byMs: number };
  'clock-backwards': { byMs: number };
  'heard-before-taken': { byMs: number };
  /** Ahead of the server's where it is over 0. */
  'clock-off': { byMs: number };
  position: { accuracyM: number };
  'way-too-far': { wayM: number; apartMs: number };
  'on-waters': { area: string | null };
  'closed-area': { area: string | null; awayM: number };
  'outside-waters': { awayM: number };
  'claimed-otherwise': { differences: readonly AnnouncedFact[] };
  'file-in-others': { catches: number };
  /** Null where no capture was told: it was first heard of with its claim. */
  'first-heard': { afterCaptureMs: number | null; wholeAfterMs: number };
}

export type CustodyFinding = Finding<CustodyCheck, CustodyReasons>;

/** A device's key as the server knows it. Times are ms since 1970, UTC. */
export interface DeviceKey {
  keyId: KeyId;
  /** It belongs to an account of the entrant. */
  isOwn: boolean;
  /** It was registered on a phone that the entrant paired. */
  isPartner: boolean;
  registeredAtMs: number;
  revokedAtMs: number | null;
  revokedWhy: 'lost' | 'given-away' | null;
}

/** A statement that has reached the server. */
export interface ToldCapture {
  statement: CaptureStatement;
  hash: string;
  /** Its signature fits it and the key that it names; false too where that key was never registered. */
  isSigned: boolean;
  heardAtMs: number;
}

/** What is known of one catch and of how it came. Times are ms since 1970, UTC. */
export interface CustodyFacts {
  eventId: EventId;
  catchId: CatchId;
  /** The photographs that were claimed and have come, as they came. */
  photographs: readonly { sha256: string; isFromOutside: boolean }[];
  /** The code that was claimed. */
  identifierCode: string | null;
  /** Everything that was told of the entrant's captures in this event, by whatever key. */
  captures: readonly ToldCapture[];
  keys: readonly DeviceKey[];
  sessions: readonly { fromMs: number; toMs: number }[];
  /** Where a fix lies; null as long as nobody has drawn the event's waters. */
  placeOn: ((fix: Fix) => PlaceOnWaters) | null;
  /** When the server first heard of the catch, and when its photographs were whole. */
  heardAtMs: number;
  arrivedAtMs: number;
  /** What the claim says otherwise than what was announced ahead of it. */
  announcedOtherwise: readonly AnnouncedFact[];
  /** Other catches with one of these very files. */
  sameFileIn: number;
}

/** Phones mend their clocks by so much without anybody's doing, ms. */
const CLOCK_STEP_MS = 5000;
/** A key that is registered so long after its capture was not there at sign-in, ms. */
const LATE_MS = 60_000;

/**
 * What can be said of the way of a catch's photographs from the device to the server. A finding informs and people
 * decide: phones are reset, lose positions, and are borrowed.
 */
export function custodyFindings(facts: CustodyFacts): CustodyFinding[] {
  const own = facts.captures.filter(({ statement }) => statement.catchId === facts.catchId);
  const found: CustodyFinding[] = [...fileFindings(facts, own)];
  const claimed = own.filter(({ statement }) =>
    facts.photographs.some(({ sha256 }) => sha256 === statement.photographSha256),
  );
  // Without the very photograph, what was signed for this catch still tells of its device and chain.
  const meant = claimed.length > 0 ? claimed : own;
  if (meant.length > 0) {
    found.push(
      ...keyFindings(facts, meant),
      ...chainFindings(facts, own),
      ...timeFindings(facts, meant),
      ...placeFindings(facts, meant),
      ...identifierFindings(facts, meant),
    );
  }
  found.push(heardFinding(facts));
  if (facts.announcedOtherwise.length > 0)
    found.push(
      finding('claimed-otherwise', 'fault', 0.8, {
        code: 'claimed-otherwise',
        differences: facts.announcedOtherwise,
      }),
    );
  if (facts.sameFileIn > 0)
    found.push(
      finding('claimed-twice', 'fault', 0.99, { code: 'file-in-others', catches: facts.sameFileIn }),
    );
  return merged(found);
}

/** Of several captures the worst word of each check, in the order of the checks. */
function merged(found: readonly CustodyFinding[]): CustodyFinding[] {
  return CUSTODY_CHECKS.flatMap((check) => {
    const [first, ...others] = found.filter((one) => one.check === check);
    return first ? [worstOf([first, ...others])] : [];
  });
}

function fileFindings({ photographs, keys }: CustodyFacts, own: readonly ToldCapture[]): CustodyFinding[] {
  const found = photographs.map(({ sha256, isFromOutside }): CustodyFinding => {
    const signed = own.find(({ statement }) => statement.photographSha256 === sha256);
    if (signed?.statement.kind === 'frame')
      return finding('photograph-altered', 'clear', 0.98, { code: 'file-signed' });
    if (signed) return finding('chosen-file', 'look', 0.9, { code: 'file-chosen' });
    const hasFrames = own.some(({ statement }) => statement.kind === 'frame');
    if (hasFrames && !isFromOutside)
      return finding('photograph-altered', 'fault', 0.95, { code: 'file-of-none' });
    return finding('unsigned', 'look', 0.9, { code: 'file-unsigned' });
  });
  // Of a key that nobody knows it cannot be said whether it signed.
  const broken = own.filter(
    ({ isSigned, statement }) => !isSigned && keys.some(({ keyId }) => keyId === statement.keyId),
  );
  return broken.length === 0
    ? found
    : [...found, finding('signature-broken', 'fault', 0.98, { code: 'signature-broken' })];
}

function keyFindings(facts: CustodyFacts, own: readonly ToldCapture[]): CustodyFinding[] {
  const found: CustodyFinding[] = [];
  const usedBefore = (before: number, except: string): Set<string> =>
    new Set(
      facts.captures
        .filter(({ statement }) => Date.parse(statement.at) < before && statement.keyId !== except)
        .map(({ statement }) => statement.keyId),
    );
  for (const { statement } of own) {
    const key = facts.keys.find(({ keyId }) => keyId === statement.keyId);
    const atMs = Date.parse(statement.at);
    if (!key) {
      found.push(finding('key-unknown', 'fault', 0.95, { code: 'key-unknown' }));
      continue;
    }
    if (!key.isOwn) {
      found.push(finding('key-of-another', 'fault', 0.95, { code: 'key-of-another' }));
      continue;
    }
    if (key.revokedAtMs !== null && atMs > key.revokedAtMs)
      found.push(finding('key-revoked', 'fault', 0.9, { code: 'key-revoked' }));
    if (key.registeredAtMs > atMs + LATE_MS)
      found.push(finding('key-late', 'look', 0.8, { code: 'key-late', byMs: key.registeredAtMs - atMs }));
    const others = [...usedBefore(atMs, statement.keyId)].flatMap(
      (keyId) => facts.keys.find((one) => one.keyId === keyId) ?? [],
    );
    if (key.isPartner) found.push(finding('partner-phone', 'clear', 0.9, { code: 'paired-phone' }));
    else if (others.some(({ revokedWhy }) => revokedWhy !== null))
      found.push(finding('key-lost', 'look', 0.7, { code: 'earlier-device-lost' }));
    else if (others.some(({ isOwn, isPartner }) => isOwn && !isPartner))
      found.push(finding('second-phone', 'look', 0.7, { code: 'earlier-device' }));
  }
  return found;
}

/** The capture before each, as its key tells it: linked, without a gap, and with a clock that nobody set. */
function chainFindings({ captures, eventId }: CustodyFacts, own: readonly ToldCapture[]): CustodyFinding[] {
  const found: CustodyFinding[] = [];
  for (const { statement, hash } of own) {
    const { keyId, seq, former } = statement;
    const chain = captures.filter((one) => one.statement.keyId === keyId);
    const before = chain.find((one) => one.statement.seq === seq - 1);
    const twin = chain.find((one) => one.statement.seq === seq && one.hash !== hash);
    if (twin) {
      found.push(finding('chain-broken', 'fault', 0.9, { code: 'chain-forked' }));
    } else if (seq === 1) {
      const fits = former === firstFormer(keyId, eventId);
      found.push(
        fits
          ? finding('chain-broken', 'clear', 0.9, { code: 'chain-first' })
          : finding('chain-broken', 'fault', 0.9, { code: 'chain-begins-elsewhere' }),
      );
    } else if (!before) {
      found.push(finding('capture-missing', 'fault', 0.85, { code: 'capture-before-missing' }));
    } else if (before.hash !== former) {
      found.push(finding('chain-broken', 'fault', 0.95, { code: 'chain-other-before' }));
    } else {
      found.push(
        finding('chain-broken', 'clear', 0.95, { code: 'chain-linked' }),
        ...clockBetween(before.statement, statement),
      );
    }
  }
  return found;
}

function clockBetween(before: CaptureStatement, after: CaptureStatement): CustodyFinding[] {
  const wallMs = Date.parse(after.at) - Date.parse(before.at);
  if (before.runId === after.runId) {
    const setMs = wallMs - (after.monotonicMs - before.monotonicMs);
    return [
      Math.abs(setMs) > CLOCK_STEP_MS
        ? finding('clock-set-back', 'fault', 0.9, { code: 'clock-set', byMs: setMs })
        : finding('clock-set-back', 'clear', 0.95, { code: 'clock-ran-on' }),
    ];
  }
  if (wallMs < -CLOCK_STEP_MS)
    return [finding('clock-set-back', 'fault', 0.85, { code: 'clock-backwards', byMs: -wallMs })];
  const [was, is] = [before.clockOffsetMs, after.clockOffsetMs];
  const isSteady = was !== null && is !== null && Math.abs(was - is) <= CLOCK_STEP_MS;
  return [
    isSteady
      ? finding('clock-restarted', 'clear', 0.7, { code: 'reopened-steady' })
      : finding('clock-restarted', 'look', 0.6, { code: 'reopened-unknown' }),
  ];
}

function timeFindings({ sessions }: CustodyFacts, own: readonly ToldCapture[]): CustodyFinding[] {
  return own.flatMap(({ statement, heardAtMs }): CustodyFinding[] => {
    const offsetMs = statement.clockOffsetMs ?? 0;
    const atMs = Date.parse(statement.at);
    const found: CustodyFinding[] = [];
    if (atMs - Math.max(0, offsetMs) > heardAtMs + CLOCK_SLACK_MS)
      found.push(
        finding('device-clock-off', 'fault', 0.95, { code: 'heard-before-taken', byMs: atMs - heardAtMs }),
      );
    else if (Math.abs(offsetMs) > CLOCK_SLACK_MS)
      found.push(finding('device-clock-off', 'look', 0.95, { code: 'clock-off', byMs: offsetMs }));
    else
      found.push(
        statement.clockOffsetMs === null
          ? finding('device-clock-off', 'look', 0.5, { code: 'clock-uncompared' })
          : finding('device-clock-off', 'clear', 0.9, { code: 'clock-right' }),
      );
    const trueMs = atMs - offsetMs;
    const isInside = sessions.some(({ fromMs, toMs }) => trueMs >= fromMs && trueMs <= toMs);
    found.push(
      isInside
        ? finding('device-time-outside', 'clear', 0.9, { code: 'signed-within' })
        : finding('device-time-outside', 'fault', 0.8, { code: 'signed-outside' }),
    );
    return found;
  });
}

function placeFindings({ captures, placeOn }: CustodyFacts, own: readonly ToldCapture[]): CustodyFinding[] {
  return own.flatMap(({ statement }): CustodyFinding[] => {
    const { position } = statement;
    if (!position) return [finding('device-place-missing', 'look', 0.9, { code: 'no-position' })];
    const found = [
      finding('device-place-missing', 'clear', 0.9, { code: 'position', accuracyM: position.accuracyM }),
    ];
    const place = placeOn?.(position);
    if (place) found.push(placeFinding(place, position.accuracyM));
    const before = captures
      .map((one) => one.statement)
      .filter((one) => one.position && one.catchId !== statement.catchId && one.at < statement.at)
      .sort((a, b) => (a.at < b.at ? 1 : -1))[0];
    if (before?.position) {
      const slackM = POSITION_SLACK_M + position.accuracyM + before.position.accuracyM;
      const wayM = Math.max(0, distanceM(position, before.position) - slackM);
      const seconds = Math.max(1, (Date.parse(statement.at) - Date.parse(before.at)) / 1000);
      found.push(
        wayM / seconds > FASTEST_M_S
          ? finding('device-too-far-too-soon', 'fault', 0.85, {
              code: 'way-too-far',
              wayM,
              apartMs: 1000 * seconds,
            })
          : finding('device-too-far-too-soon', 'clear', 0.85, { code: 'way-possible' }),
      );
    }
    return found;
  });
}

function placeFinding({ where, name, awayM }: PlaceOnWaters, accuracyM: number): CustodyFinding {
  if (where === 'open')
    return finding('device-place-outside', 'clear', 0.9, { code: 'on-waters', area: name });
  // A receiver's word is good to its accuracy: nearer to the bounds than that nobody can say.
  const tone = awayM > Math.max(accuracyM, 20) ? 'fault' : 'look';
  return where === 'closed'
    ? finding('device-place-outside', tone, 0.85, { code: 'closed-area', area: name, awayM })
    : finding('device-place-outside', tone, 0.85, { code: 'outside-waters', awayM });
}

function identifierFindings({ identifierCode }: CustodyFacts, own: readonly ToldCapture[]): CustodyFinding[] {
  return own.flatMap(({ statement }) => {
    if (statement.identifierCode === null || identifierCode === null) return [];
    return statement.identifierCode === identifierCode
      ? [finding('identifier-otherwise', 'clear', 0.9, { code: 'code-as-signed' })]
      : [finding('identifier-otherwise', 'fault', 0.8, { code: 'code-otherwise' })];
  });
}

function heardFinding({ captures, catchId, heardAtMs, arrivedAtMs }: CustodyFacts): CustodyFinding {
  const told = captures.filter(({ statement }) => statement.catchId === catchId);
  const firstMs = Math.min(heardAtMs, ...told.map((one) => one.heardAtMs));
  const takenMs = Math.min(
    ...told.map(({ statement }) => Date.parse(statement.at) - (statement.clockOffsetMs ?? 0)),
  );
  return finding('first-heard', 'clear', 0.99, {
    code: 'first-heard',
    afterCaptureMs: Number.isFinite(takenMs) ? Math.max(0, firstMs - takenMs) : null,
    wholeAfterMs: Math.max(0, arrivedAtMs - firstMs),
  });
}

function finding(
  check: CustodyCheck,
  tone: Tone,
  confidence: number,
  reason: CustodyFinding['reason'],
): CustodyFinding {
  return { check, tone, confidence, reason };
}
