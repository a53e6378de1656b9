import { areasOf } from '@lauta/contract';
import { fileFindings, type FileFinding } from '@lauta/core/file-evidence';
import { placeOnWaters } from '@lauta/core/waters';
import { heardOf } from '../custody/viewCustody.ts';
import { storedFacts } from '../photo/storedFacts.ts';
import { readOriginal } from '../photo/readOriginal.ts';
import type { Stores } from '../storage/storage.ts';
import { currentWaters } from '../waters/currentWaters.ts';
import type { CatchRecord } from '../catch/catchStore.ts';
import type { FileId } from '@lauta/core/ids';

/** What the file of a catch's measurement says for and against itself. */
export async function fileEvidence(
  stores: Stores,
  record: CatchRecord,
  photographId: FileId,
): Promise<FileFinding[]> {
  const photograph = await stores.photographs.find(photographId);
  const bytes = photograph && (await readOriginal(stores, photograph));
  if (!bytes || !photograph.exif) return [];
  const sessions = await stores.events.sessions(record.eventId);
  const waters = await currentWaters(stores, record.eventId);
  const areas = waters && areasOf(waters.waters);
  return fileFindings({
    ...(await storedFacts(bytes)),
    exif: photograph.exif,
    sessions: sessions.map(({ linesInAt, linesOutAt }) => ({
      fromMs: linesInAt.getTime(),
      toMs: linesOutAt.getTime(),
    })),
    receivedAtMs: (await heardOf(stores, record)).getTime(),
    madeAtMs: record.madeAt.getTime(),
    placeOn: areas && ((position) => placeOnWaters(areas, position)),
    former: await formerCapture(stores, record),
  });
}

/** The same entrant's capture before this one, as far as its file has a position. */
async function formerCapture(
  stores: Stores,
  record: CatchRecord,
): Promise<{ atMs: number; position: { latitude: number; longitude: number } } | null> {
  const own = (await stores.catches.allOf(record.eventId))
    .filter((one) => one.entrantId === record.entrantId && one.capturedAt < record.capturedAt)
    .sort((a, b) => b.capturedAt.getTime() - a.capturedAt.getTime());
  const former = own[0];
  const measurement = former && (await stores.catches.measurement(former.measurementId));
  const photograph = measurement?.photographId
    ? await stores.photographs.find(measurement.photographId)
    : null;
  const position = photograph?.exif?.position;
  return former && position ? { atMs: former.capturedAt.getTime(), position } : null;
}
