import { CLOCK_SLACK_MS, FASTEST_M_S, POSITION_SLACK_M } from '../file-evidence/index.ts';
import { distanceM, type Tone } from '../evidence/index.ts';
import type { PlaceOnWaters } from '../waters/index.ts';
import { firstFormer, type CaptureStatement, type Fix } from './statement.ts';

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

export interface CustodyFinding {
  check: CustodyCheck;
  tone: Tone;
  confidence: number;
  why: string;
}

/** A device's key as the server knows it. Times are ms since 1970, UTC. */
export interface DeviceKey {
  keyId: string;
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
  eventId: string;
  catchId: string;
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
  announcedOtherwise: readonly string[];
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
      finding(
        'claimed-otherwise',
        'fault',
        0.8,
        `The claim differs from what was announced ahead of it: ${facts.announcedOtherwise.join(', ')}.`,
      ),
    );
  if (facts.sameFileIn > 0)
    found.push(
      finding(
        'claimed-twice',
        'fault',
        0.99,
        `The very same file stands in ${facts.sameFileIn === 1 ? 'another catch' : `${facts.sameFileIn} other catches`}.`,
      ),
    );
  return merged(found);
}

/** Of several captures the worst word of each check, in the order of the checks. */
function merged(found: readonly CustodyFinding[]): CustodyFinding[] {
  const rank: Record<Tone, number> = { clear: 0, look: 1, fault: 2 };
  return CUSTODY_CHECKS.flatMap((check) => {
    const [worst] = found
      .filter((one) => one.check === check)
      .sort((a, b) => rank[b.tone] - rank[a.tone]);
    return worst ? [worst] : [];
  });
}

function fileFindings({ photographs, keys }: CustodyFacts, own: readonly ToldCapture[]): CustodyFinding[] {
  const found = photographs.map(({ sha256, isFromOutside }): CustodyFinding => {
    const signed = own.find(({ statement }) => statement.photographSha256 === sha256);
    if (signed?.statement.kind === 'frame')
      return finding(
        'photograph-altered',
        'clear',
        0.98,
        'The file is the one that the device signed when it was taken.',
      );
    if (signed)
      return finding(
        'chosen-file',
        'look',
        0.9,
        'The device signed the file when it was chosen, not when it was taken.',
      );
    const hasFrames = own.some(({ statement }) => statement.kind === 'frame');
    if (hasFrames && !isFromOutside)
      return finding(
        'photograph-altered',
        'fault',
        0.95,
        'The device signed photographs of this catch, and this file is none of them.',
      );
    return finding('unsigned', 'look', 0.9, 'No device signed this file when it was taken.');
  });
  // Of a key that nobody knows it cannot be said whether it signed.
  const broken = own.filter(
    ({ isSigned, statement }) => !isSigned && keys.some(({ keyId }) => keyId === statement.keyId),
  );
  return broken.length === 0
    ? found
    : [
        ...found,
        finding(
          'signature-broken',
          'fault',
          0.98,
          'A statement does not fit its signature: it was changed, or signed by another key than it names.',
        ),
      ];
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
      found.push(finding('key-unknown', 'fault', 0.95, 'The key that signed was never registered.'));
      continue;
    }
    if (!key.isOwn) {
      found.push(finding('key-of-another', 'fault', 0.95, 'Somebody else’s device signed.'));
      continue;
    }
    if (key.revokedAtMs !== null && atMs > key.revokedAtMs)
      found.push(finding('key-revoked', 'fault', 0.9, 'The device signed after it had been struck off.'));
    if (key.registeredAtMs > atMs + LATE_MS)
      found.push(
        finding(
          'key-late',
          'look',
          0.8,
          `The device was registered ${spanWords(key.registeredAtMs - atMs)} after the capture.`,
        ),
      );
    const others = [...usedBefore(atMs, statement.keyId)].flatMap(
      (keyId) => facts.keys.find((one) => one.keyId === keyId) ?? [],
    );
    if (key.isPartner)
      found.push(finding('partner-phone', 'clear', 0.9, 'Taken with a phone that the entrant paired.'));
    else if (others.some(({ revokedWhy }) => revokedWhy !== null))
      found.push(
        finding('key-lost', 'look', 0.7, 'An earlier device of this entrant was struck off: its chain ends.'),
      );
    else if (others.some(({ isOwn, isPartner }) => isOwn && !isPartner))
      found.push(
        finding('second-phone', 'look', 0.7, 'Another device of this entrant took earlier captures.'),
      );
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
      found.push(
        finding(
          'chain-broken',
          'fault',
          0.9,
          'Two captures of one device claim the same place in its chain.',
        ),
      );
    } else if (seq === 1) {
      const fits = former === firstFormer(keyId, eventId);
      found.push(
        fits
          ? finding('chain-broken', 'clear', 0.9, 'The first capture of this device in the event.')
          : finding('chain-broken', 'fault', 0.9, 'The chain of this device does not begin with this event.'),
      );
    } else if (!before) {
      found.push(
        finding(
          'capture-missing',
          'fault',
          0.85,
          'The capture before it was never told: it was left out, or is still on its way.',
        ),
      );
    } else if (before.hash !== former) {
      found.push(
        finding(
          'chain-broken',
          'fault',
          0.95,
          'It names another capture before it than the one that was told.',
        ),
      );
    } else {
      found.push(
        finding('chain-broken', 'clear', 0.95, 'Linked to the capture before it, and none left out.'),
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
        ? finding(
            'clock-set-back',
            'fault',
            0.9,
            `The device’s clock was set ${setMs < 0 ? 'back' : 'forward'} by ${spanWords(Math.abs(setMs))} since the capture before.`,
          )
        : finding('clock-set-back', 'clear', 0.95, 'The device’s clock ran on since the capture before.'),
    ];
  }
  if (wallMs < -CLOCK_STEP_MS)
    return [
      finding(
        'clock-set-back',
        'fault',
        0.85,
        `By the device’s clock it was taken ${spanWords(-wallMs)} before the capture that came before it.`,
      ),
    ];
  const [was, is] = [before.clockOffsetMs, after.clockOffsetMs];
  const isSteady = was !== null && is !== null && Math.abs(was - is) <= CLOCK_STEP_MS;
  return [
    isSteady
      ? finding(
          'clock-restarted',
          'clear',
          0.7,
          'The page was opened anew since the capture before; the device’s clock stood as it was against the server’s.',
        )
      : finding(
          'clock-restarted',
          'look',
          0.6,
          'The page was opened anew since the capture before: whether the device’s clock was set meanwhile is not known.',
        ),
  ];
}

function timeFindings({ sessions }: CustodyFacts, own: readonly ToldCapture[]): CustodyFinding[] {
  return own.flatMap(({ statement, heardAtMs }): CustodyFinding[] => {
    const offsetMs = statement.clockOffsetMs ?? 0;
    const atMs = Date.parse(statement.at);
    const found: CustodyFinding[] = [];
    if (atMs - Math.max(0, offsetMs) > heardAtMs + CLOCK_SLACK_MS)
      found.push(
        finding(
          'device-clock-off',
          'fault',
          0.95,
          `The server heard of it ${spanWords(atMs - heardAtMs)} before the device says it was taken.`,
        ),
      );
    else if (Math.abs(offsetMs) > CLOCK_SLACK_MS)
      found.push(
        finding(
          'device-clock-off',
          'look',
          0.95,
          `The device’s clock runs ${spanWords(Math.abs(offsetMs))} ${offsetMs > 0 ? 'ahead of' : 'behind'} the server’s.`,
        ),
      );
    else
      found.push(
        statement.clockOffsetMs === null
          ? finding(
              'device-clock-off',
              'look',
              0.5,
              'The device’s clock was never compared with the server’s.',
            )
          : finding('device-clock-off', 'clear', 0.9, 'The device’s clock goes with the server’s.'),
      );
    const trueMs = atMs - offsetMs;
    const isInside = sessions.some(({ fromMs, toMs }) => trueMs >= fromMs && trueMs <= toMs);
    found.push(
      isInside
        ? finding('device-time-outside', 'clear', 0.9, 'Signed within a session.')
        : finding('device-time-outside', 'fault', 0.8, 'Signed outside of every session.'),
    );
    return found;
  });
}

function placeFindings({ captures, placeOn }: CustodyFacts, own: readonly ToldCapture[]): CustodyFinding[] {
  return own.flatMap(({ statement }): CustodyFinding[] => {
    const { position } = statement;
    if (!position) return [finding('device-place-missing', 'look', 0.9, 'The device had no position.')];
    const found = [
      finding(
        'device-place-missing',
        'clear',
        0.9,
        `The device had a position, good to ${Math.round(position.accuracyM)} m.`,
      ),
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
          ? finding(
              'device-too-far-too-soon',
              'fault',
              0.85,
              `${(wayM / 1000).toFixed(1)} km from the entrant’s capture before it, ${spanWords(1000 * seconds)} earlier.`,
            )
          : finding(
              'device-too-far-too-soon',
              'clear',
              0.85,
              'The way from the entrant’s capture before it can be gone in the time.',
            ),
      );
    }
    return found;
  });
}

function placeFinding({ where, name, awayM }: PlaceOnWaters, accuracyM: number): CustodyFinding {
  if (where === 'open')
    return finding('device-place-outside', 'clear', 0.9, `On the event’s waters${name ? `, ${name}` : ''}.`);
  // A receiver's word is good to its accuracy: nearer to the bounds than that nobody can say.
  const verdict = awayM > Math.max(accuracyM, 20) ? 'fault' : 'look';
  const by = `${Math.round(awayM)} m`;
  return where === 'closed'
    ? finding(
        'device-place-outside',
        verdict,
        0.85,
        `In a closed area${name ? `, ${name}` : ''}, ${by} from its edge.`,
      )
    : finding('device-place-outside', verdict, 0.85, `Outside of the event’s waters by ${by}.`);
}

function identifierFindings({ identifierCode }: CustodyFacts, own: readonly ToldCapture[]): CustodyFinding[] {
  return own.flatMap(({ statement }) => {
    if (statement.identifierCode === null || identifierCode === null) return [];
    return statement.identifierCode === identifierCode
      ? [
          finding(
            'identifier-otherwise',
            'clear',
            0.9,
            'The code that was claimed is the one the device signed.',
          ),
        ]
      : [
          finding(
            'identifier-otherwise',
            'fault',
            0.8,
            'Another code was claimed than the device signed when the photograph was taken.',
          ),
        ];
  });
}

function heardFinding({ captures, catchId, heardAtMs, arrivedAtMs }: CustodyFacts): CustodyFinding {
  const told = captures.filter(({ statement }) => statement.catchId === catchId);
  const firstMs = Math.min(heardAtMs, ...told.map((one) => one.heardAtMs));
  const takenMs = Math.min(
    ...told.map(({ statement }) => Date.parse(statement.at) - (statement.clockOffsetMs ?? 0)),
  );
  const after = Number.isFinite(takenMs)
    ? `${spanWords(Math.max(0, firstMs - takenMs))} after the capture`
    : 'with its claim';
  const later = Math.max(0, arrivedAtMs - firstMs);
  const whole =
    later < 1000 ? 'its photographs came with that' : `its photographs were whole ${spanWords(later)} later`;
  return finding('first-heard', 'clear', 0.99, `The server first heard of it ${after}; ${whole}.`);
}

/** A span of time as a person says it. */
export function spanWords(ms: number): string {
  const seconds = Math.round(ms / 1000);
  if (seconds < 120) return `${seconds} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 120 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

function finding(
  check: CustodyCheck,
  verdict: Tone,
  confidence: number,
  why: string,
): CustodyFinding {
  return { check, tone: verdict, confidence, why };
}
