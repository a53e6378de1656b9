import { FlankIndex, flankPattern, flankPlace, type KeptFlank } from '@lauta/vision/same-fish';
import type { AlikeCatch } from '@lauta/contract';
import type { PhotoAnalysis } from '@lauta/vision';
import type { Storage, Stores } from '../storage/storage.ts';
import type { StoredFlank } from './flankStore.ts';
import type { CatchId, EventId, FileId, MeasurementId, SpeciesId } from '@lauta/core/ids';

/** Lengths farther apart than this share are not compared. */
const LENGTH_SPAN = 0.08;
const MOST_ALIKE = 3;
const MOST_PLACES = 14;

interface CaughtFish {
  catchId: CatchId;
  eventId: EventId;
  speciesId: SpeciesId;
  measurementId: MeasurementId;
}

interface EventFlanks {
  byCatch: Map<string, StoredFlank>;
  index: FlankIndex;
}

/** Reads one catch's photograph; null where it cannot be read now, `unreadable` where it never will be. */
export type ReadCatch = (catchId: CatchId) => Promise<PhotoAnalysis | 'unreadable' | null>;

export interface Alike {
  catches: AlikeCatch[];
  /** Earlier fish of this kind and length whose photographs are not yet read. */
  unread: number;
}

/** Keeps the flanks of each event's fish in memory and in the database, and finds fish that look the same. */
export class FlankKeeper {
  private readonly events = new Map<string, Promise<EventFlanks>>();
  private readonly reading = new Set<string>();
  /** Catches whose photographs cannot be read: they are not asked for again before the next start. */
  private readonly unreadable = new Set<string>();
  private readonly storage: Storage;

  constructor(storage: Storage) {
    this.storage = storage;
  }

  /** Keeps what an analysis says of a catch's flank. */
  async keep(record: CaughtFish, photographId: FileId, analysis: PhotoAnalysis): Promise<StoredFlank> {
    const stored: StoredFlank = {
      catchId: record.catchId,
      eventId: record.eventId,
      photographId,
      lengthMm: analysis.lengthMm,
      sigmaMm: analysis.sigmaMm,
      flank: analysis.lengthMm === null ? null : rounded(analysis.flank),
    };
    const flanks = await this.flanksOf(record.eventId);
    const former = flanks.byCatch.get(record.catchId);
    if (former?.photographId === photographId) return former;
    await this.storage.read.flanks.put(stored);
    flanks.byCatch.set(record.catchId, stored);
    if (former) this.events.set(record.eventId, Promise.resolve(indexed([...flanks.byCatch.values()])));
    else addTo(flanks.index, stored);
    return stored;
  }

  /**
   * Other catches of the event that may show the same fish.
   * @param readCatch asked, one after the other and in the background, for those that are not yet read
   */
  async alikeTo(record: CaughtFish, own: StoredFlank, readCatch: ReadCatch): Promise<Alike> {
    const { lengthMm, sigmaMm, flank } = own;
    if (lengthMm === null || sigmaMm === null || flank === null) return { catches: [], unread: 0 };
    const stores = this.storage.read;
    const flanks = await this.flanksOf(record.eventId);
    const others = (await stores.catches.allOf(record.eventId)).filter(
      (other) => other.catchId !== record.catchId && other.speciesId === record.speciesId,
    );
    const wanted = new Map(others.map((other) => [other.catchId, other]));
    const unread = await this.unreadOf(
      others.filter(({ catchId }) => !flanks.byCatch.has(catchId) && !this.unreadable.has(catchId)),
      lengthMm,
    );
    void this.readAll(unread, readCatch);
    const found = flanks.index.search(
      { lengthMm, sigmaMm, flank: flankPattern(flank.pattern) },
      MOST_ALIKE,
      (id) => wanted.has(id),
    );
    const catches: AlikeCatch[] = [];
    for (const { id, likeness } of found) {
      const other = wanted.get(id);
      const theirs = flanks.byCatch.get(id);
      if (likeness.answer === 'different' || !other || !theirs?.flank) continue;
      const entrant = await stores.people.findEntrant(other.entrantId);
      catches.push({
        catchId: id,
        photographId: theirs.photographId,
        ownPhotographId: own.photographId,
        entrant: { number: entrant?.number ?? 0, name: entrant?.name ?? '' },
        capturedAt: other.capturedAt.toISOString(),
        lengthMm: theirs.lengthMm ?? 0,
        score: likeness.score,
        answer: likeness.answer,
        isSamePhoto: likeness.isSamePhoto,
        reason: likeness.reason,
        places: placesOf(likeness.match?.places ?? [], flank, theirs.flank),
      });
    }
    return { catches, unread: unread.length };
  }

  /** Those whose claimed reading is near enough to be compared. */
  private async unreadOf(records: readonly CaughtFish[], lengthMm: number): Promise<string[]> {
    const near: string[] = [];
    for (const record of records) {
      const measurement = await this.storage.read.catches.measurement(record.measurementId);
      const claimedMm = measurement?.kind === 'board' ? measurement.reading.apparentMm : NaN;
      if (Math.abs(claimedMm / lengthMm - 1) < 1.3 * LENGTH_SPAN) near.push(record.catchId);
    }
    return near;
  }

  private async readAll(catchIds: readonly CatchId[], readCatch: ReadCatch): Promise<void> {
    for (const catchId of catchIds) {
      if (this.reading.has(catchId)) continue;
      this.reading.add(catchId);
      try {
        const analysis = await readCatch(catchId);
        if (analysis === 'unreadable') {
          this.unreadable.add(catchId);
          continue;
        }
        const record = analysis && (await this.storage.read.catches.find(catchId));
        const measurement = record && (await this.storage.read.catches.measurement(record.measurementId));
        if (analysis && record && measurement?.photographId)
          await this.keep(record, measurement.photographId, analysis);
      } catch {
        // The database or the threads are gone for now: whoever asks next has it read again.
      } finally {
        this.reading.delete(catchId);
      }
    }
  }

  private flanksOf(eventId: EventId): Promise<EventFlanks> {
    const known = this.events.get(eventId);
    if (known) return known;
    const loading = load(this.storage.read, eventId);
    this.events.set(eventId, loading);
    loading.catch(() => this.events.delete(eventId));
    return loading;
  }
}

async function load(stores: Stores, eventId: EventId): Promise<EventFlanks> {
  return indexed(await stores.flanks.inEvent(eventId));
}

function indexed(flanks: readonly StoredFlank[]): EventFlanks {
  const index = new FlankIndex();
  for (const flank of flanks) addTo(index, flank);
  return { index, byCatch: new Map(flanks.map((flank) => [flank.catchId, flank])) };
}

function addTo(index: FlankIndex, { catchId, lengthMm, sigmaMm, flank }: StoredFlank): void {
  if (lengthMm === null || sigmaMm === null || flank === null) return;
  index.add({ id: catchId, lengthMm, sigmaMm, flank: flankPattern(flank.pattern) });
}

/** Tenths of a px are enough to draw. */
function rounded(flank: KeptFlank | null): KeptFlank | null {
  if (!flank) return null;
  const tenth = (value: number): number => Math.round(value * 10) / 10;
  return {
    ...flank,
    frame: { ...flank.frame, px: flank.frame.px.map(([x, y]) => [tenth(x), tenth(y)] as const) },
  };
}

/** Where the best matching places are seen in both photographs, px. */
function placesOf(
  places: readonly { from: readonly [number, number]; to: readonly [number, number]; alike: number }[],
  own: KeptFlank,
  theirs: KeptFlank,
): AlikeCatch['places'] {
  return places
    .filter(({ alike }) => alike > 0.5)
    .slice(0, MOST_PLACES)
    .map(({ from, to }) => [flankPlace(own.frame, from[0], from[1]), flankPlace(theirs.frame, to[0], to[1])]);
}
