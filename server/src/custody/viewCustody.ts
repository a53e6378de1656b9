import { areasOf, type Announcement, type CaptureView, type CustodyView } from '@lauta/contract';
import { custodyFindings, type AnnouncedFact, type DeviceKey, type ToldCapture } from '@lauta/core/custody';
import { placeOnWaters } from '@lauta/core/waters';
import type { CatchRecord } from '../catch/catchStore.ts';
import type { Photograph } from '../photo/photographStore.ts';
import type { Stores } from '../storage/storage.ts';
import { currentWaters } from '../waters/currentWaters.ts';
import type { StoredCapture } from './custodyStore.ts';
import { isStatementSigned } from './isSignedBy.ts';
import type { EntrantId, FileId } from '@lauta/core/ids';

/** When the server first heard of a catch: by its announcement, or by its claim. */
export async function heardOf(stores: Stores, record: CatchRecord): Promise<Date> {
  const announced = await announcementOf(stores, record);
  return announced && announced.heardAt < record.receivedAt ? announced.heardAt : record.receivedAt;
}

/** What the catch's own entrant announced of it: another's word under its id is nobody's. */
async function announcementOf(stores: Stores, { catchId, entrantId }: CatchRecord) {
  const announced = await stores.custody.findAnnouncement(catchId);
  return announced?.entrantId === entrantId ? announced : null;
}

/** How a catch came from its capture to the server, with what speaks for and against it. */
export async function viewCustody(stores: Stores, record: CatchRecord): Promise<CustodyView> {
  const { catchId, eventId, entrantId } = record;
  const [captures, announced, sessions, waters, heardAt] = await Promise.all([
    stores.custody.capturesOf(entrantId),
    announcementOf(stores, record),
    stores.events.sessions(eventId),
    currentWaters(stores, eventId),
    heardOf(stores, record),
  ]);
  const { files, claimed } = await claimedFiles(stores, record, captures);
  const told = await Promise.all(
    captures.map(async (one): Promise<ToldCapture> => ({
      statement: one.statement,
      hash: one.hash,
      isSigned: one.catchId !== catchId || (await isSigned(stores, one)),
      heardAtMs: one.heardAt.getTime(),
    })),
  );
  const areas = waters && areasOf(waters.waters);
  const findings = custodyFindings({
    eventId,
    catchId,
    photographs: claimed.map(({ sha256 }) => ({
      sha256,
      isFromOutside: record.marks.includes('taken-outside'),
    })),
    identifierCode: record.identifierCode,
    captures: told,
    keys: await keysOf(stores, captures, entrantId),
    sessions: sessions.map(({ linesInAt, linesOutAt }) => ({
      fromMs: linesInAt.getTime(),
      toMs: linesOutAt.getTime(),
    })),
    placeOn: areas && ((fix) => placeOnWaters(areas, fix)),
    heardAtMs: heardAt.getTime(),
    arrivedAtMs: record.receivedAt.getTime(),
    announcedOtherwise: announced ? differences(announced.body, record, claimed) : [],
    sameFileIn: await stores.catches.othersWithFiles(catchId, eventId, [
      ...new Set(claimed.map(({ sha256 }) => sha256)),
    ]),
  });
  const own = captures.filter((one) => one.catchId === catchId);
  const idOf = new Map(files.map(({ sha256, photographId }) => [sha256, photographId]));
  const isClaimed = (sha256: string): boolean => claimed.some((one) => one.sha256 === sha256);
  const position = (own.find(({ statement }) => isClaimed(statement.photographSha256)) ?? own[0])?.statement
    .position;
  return {
    heardAt: heardAt.toISOString(),
    arrivedAt: record.receivedAt.toISOString(),
    findings,
    captures: own
      .toSorted((a, b) => (a.statement.at < b.statement.at ? -1 : 1))
      .map((one) => {
        const { photographSha256 } = one.statement;
        return captureView(one, isClaimed(photographSha256), idOf.get(photographSha256) ?? null);
      }),
    position: position ?? null,
    place: position && areas ? placeOnWaters(areas, position) : null,
  };
}

/** A catch's photographs, and those that came before its claim was heard. */
async function claimedFiles(
  stores: Stores,
  { catchId, receivedAt }: CatchRecord,
  captures: readonly StoredCapture[],
): Promise<{ files: Photograph[]; claimed: Photograph[] }> {
  const files: Photograph[] = [];
  for (const { photographId, role } of await stores.catches.photographsOf(catchId)) {
    const file = role === 'clip' ? null : await stores.photographs.find(photographId);
    if (file?.completedAt) files.push(file);
  }
  const frames = new Set(captures.flatMap(({ sentPhotographId }) => sentPhotographId ?? []));
  // Frames and answers that came after the claim prove nothing of it.
  const claimed = files.filter(
    ({ photographId, completedAt }) =>
      !frames.has(photographId) && completedAt !== null && completedAt <= receivedAt,
  );
  return { files, claimed };
}

function captureView(one: StoredCapture, isClaimed: boolean, ownPhotographId: FileId | null): CaptureView {
  const { kind, at, photographSha256, position } = one.statement;
  return {
    captureId: one.captureId,
    kind,
    at,
    photographSha256,
    photographId: one.sentPhotographId ?? ownPhotographId,
    isClaimed,
    frame:
      one.sentPhotographId !== null
        ? 'sent'
        : one.answeredAt !== null
          ? 'gone'
          : one.askedAt !== null
            ? 'asked'
            : 'on-device',
    position,
  };
}

async function isSigned(stores: Stores, { statement, signature }: StoredCapture): Promise<boolean> {
  const key = await stores.custody.findKey(statement.keyId);
  return key !== null && (await isStatementSigned(key.publicKey, signature, statement));
}

async function keysOf(
  stores: Stores,
  captures: readonly StoredCapture[],
  entrantId: EntrantId,
): Promise<DeviceKey[]> {
  const keys = await stores.custody.keys([...new Set(captures.map(({ statement }) => statement.keyId))]);
  return Promise.all(
    keys.map(async (key): Promise<DeviceKey> => ({
      keyId: key.keyId,
      isOwn: await stores.people.isMember(entrantId, key.accountId),
      isPartner: key.pairingId !== null,
      registeredAtMs: key.registeredAt.getTime(),
      revokedAtMs: key.revokedAt?.getTime() ?? null,
      revokedWhy: key.revokedWhy,
    })),
  );
}

/** What a claim says otherwise than what was announced ahead of it. */
function differences(
  announced: Announcement,
  record: CatchRecord,
  claimed: readonly Photograph[],
): AnnouncedFact[] {
  const found: AnnouncedFact[] = [];
  if (announced.speciesId !== record.speciesId) found.push('species');
  if (announced.claimedSteps !== record.claimedSteps) found.push('length');
  if (announced.identifierCode !== record.identifierCode) found.push('code');
  const sums = new Set(announced.photographs.map(({ sha256 }) => sha256));
  if (claimed.some(({ sha256 }) => !sums.has(sha256))) found.push('photograph');
  return found;
}
