import { inOrder, undoneOf } from '../act-list/index.ts';
import type { Comparison, MassReading } from '../cull/index.ts';
import { takeScaleAct, type Scales } from '../scale/index.ts';
import type {
  Condition,
  FishTag,
  ReleaseReason,
  TagKind,
  TagPlace,
  WellAct,
  WellEntry,
  WellSettings,
  WellSign,
} from './acts.ts';
import type { EntryId, FishId, SpeciesId, TagId } from '../ids.ts';

/** A fish's state at a look, with the tag that it bore: what the dispute over tags can be settled by. */
export interface Look {
  atMs: number;
  condition: Condition;
  signs: WellSign[];
  tagKind: TagKind | null;
}

export interface WellFish {
  fishId: FishId;
  speciesId: SpeciesId;
  lengthMm: number | null;
  inAtMs: number;
  condition: Condition;
  compartment: number;
  tagId: TagId | null;
  tagPlace: TagPlace;
  readings: MassReading[];
  looks: Look[];
  /** Times that it was taken out of the water: weighed, hung on the beam, let go. */
  liftings: number;
  hangingSeconds: number;
  airSeconds: number;
}

export interface GoneFish extends WellFish {
  goneAtMs: number;
  reason: ReleaseReason;
}

/** Why an entry changes nothing. It is kept and told all the same. */
export type Contradiction = 'no-such-fish' | 'fish-gone' | 'fish-known' | 'no-such-tag' | 'no-such-entry';

export interface LiveWell {
  settings: WellSettings;
  /** In the order in which they came in. */
  fish: WellFish[];
  gone: GoneFish[];
  comparisons: (Comparison & { atMs: number })[];
  scales: Scales;
  /** The last count by hand; null as long as nobody counted, or since a fish came or went. */
  declared: { count: number; atMs: number } | null;
  /** Whether the total is shown to everybody. */
  isShared: boolean;
  contradictions: { entryId: EntryId; why: Contradiction }[];
  /** Entries that were taken back. */
  undone: Set<string>;
}

export const usualTags = (): WellSettings => ({
  tags: [1, 2, 3, 4, 5].map((number) => ({ tagId: `tag-${number}`, number, colour: null })),
  spare: { tagId: 'spare', number: 6, colour: 'orange' },
  tagKind: 'clip',
  compartments: 1,
});

/** The well as the list of its entries leaves it, whatever the order in which they arrived. */
export function liveWellOf(entries: readonly WellEntry[]): LiveWell {
  const ordered = inOrder(entries);
  const undone = undoneOf(ordered);
  const well: LiveWell = {
    settings: usualTags(),
    fish: [],
    gone: [],
    comparisons: [],
    scales: new Map(),
    declared: null,
    isShared: false,
    contradictions: [],
    undone,
  };
  const known = new Set(ordered.map(({ entryId }) => entryId));
  for (const entry of ordered) {
    if (undone.has(entry.entryId)) continue;
    const why = take(well, entry, known);
    if (why) well.contradictions.push({ entryId: entry.entryId, why });
  }
  return well;
}

export function findTag({ tags, spare }: WellSettings, tagId: TagId | null): FishTag | null {
  return [...tags, ...(spare ? [spare] : [])].find((tag) => tag.tagId === tagId) ?? null;
}

function take(well: LiveWell, { atMs, act }: WellEntry, known: ReadonlySet<string>): Contradiction | null {
  switch (act.kind) {
    case 'set-up':
      well.settings = act.settings;
      return null;
    case 'scale':
    case 'scale-check':
    case 'scale-repeat':
      takeScaleAct(well.scales, atMs, act);
      return null;
    case 'fish-in':
      return comeIn(well, atMs, act);
    case 'compared':
      return compare(well, atMs, act);
    case 'released':
      return letGo(well, atMs, act);
    case 'declared':
      well.declared = { count: act.count, atMs };
      return null;
    case 'shared':
      well.isShared = act.isShared;
      return null;
    case 'undone':
      return known.has(act.entryId) ? null : 'no-such-entry';
    default:
      return ofFish(well, act.fishId, (fish) => changed(well, fish, atMs, act));
  }
}

function comeIn(
  well: LiveWell,
  atMs: number,
  act: Extract<WellAct, { kind: 'fish-in' }>,
): Contradiction | null {
  if ([...well.fish, ...well.gone].some(({ fishId }) => fishId === act.fishId)) return 'fish-known';
  const hasTag = act.tagId === null || findTag(well.settings, act.tagId) !== null;
  well.declared = null;
  well.fish.push({
    fishId: act.fishId,
    speciesId: act.speciesId,
    lengthMm: act.lengthMm,
    condition: act.condition,
    compartment: act.compartment,
    tagId: hasTag ? act.tagId : null,
    tagPlace: act.tagPlace,
    inAtMs: atMs,
    readings: [],
    looks: [],
    liftings: 0,
    hangingSeconds: 0,
    airSeconds: 0,
  });
  return hasTag ? null : 'no-such-tag';
}

/** One act on a fish aboard. What is told of a fish that is gone still belongs to its record. */
function ofFish(
  well: LiveWell,
  fishId: FishId,
  change: (fish: WellFish) => WellFish | Contradiction,
): Contradiction | null {
  const place = well.fish.findIndex((one) => one.fishId === fishId);
  const fish = well.fish[place];
  if (!fish) return well.gone.some((one) => one.fishId === fishId) ? 'fish-gone' : 'no-such-fish';
  const next = change(fish);
  if (typeof next === 'string') return next;
  well.fish[place] = next;
  return null;
}

function changed(
  well: LiveWell,
  fish: WellFish,
  atMs: number,
  act: Extract<WellAct, { kind: 'described' | 'weighed' | 'tagged' | 'moved' | 'looked' }>,
): WellFish | Contradiction {
  switch (act.kind) {
    case 'described':
      return { ...fish, speciesId: act.speciesId, lengthMm: act.lengthMm };
    case 'weighed':
      return {
        ...fish,
        readings: [...fish.readings, { scaleId: act.scaleId, readG: act.readG, atMs }],
        liftings: fish.liftings + 1,
        airSeconds: fish.airSeconds + (act.airSeconds ?? 0),
      };
    case 'tagged':
      if (act.tagId !== null && !findTag(well.settings, act.tagId)) return 'no-such-tag';
      return { ...fish, tagId: act.tagId, tagPlace: act.tagPlace };
    case 'moved':
      return { ...fish, compartment: act.compartment };
    case 'looked': {
      const tagKind = fish.tagId !== null && fish.tagPlace === 'on' ? well.settings.tagKind : null;
      const look = { atMs, condition: act.condition, signs: act.signs, tagKind };
      return { ...fish, condition: act.condition, looks: [...fish.looks, look] };
    }
  }
}

function compare(
  well: LiveWell,
  atMs: number,
  { leftId, rightId, outcome, hangingSeconds }: Extract<WellAct, { kind: 'compared' }>,
): Contradiction | null {
  for (const fishId of [leftId, rightId]) {
    const why = ofFish(well, fishId, (fish) => ({
      ...fish,
      liftings: fish.liftings + 1,
      hangingSeconds: fish.hangingSeconds + (hangingSeconds ?? 0),
    }));
    if (why) return why;
  }
  if (outcome !== null) well.comparisons.push({ leftId, rightId, outcome, atMs });
  return null;
}

function letGo(
  well: LiveWell,
  atMs: number,
  { fishId, reason, airSeconds }: Extract<WellAct, { kind: 'released' }>,
): Contradiction | null {
  const why = ofFish(well, fishId, (fish) => ({
    ...fish,
    liftings: fish.liftings + 1,
    airSeconds: fish.airSeconds + (airSeconds ?? 0),
  }));
  if (why) return why;
  const fish = well.fish.find((one) => one.fishId === fishId);
  if (!fish) return 'no-such-fish';
  well.fish = well.fish.filter((one) => one !== fish);
  well.gone.push({ ...fish, goneAtMs: atMs, reason });
  well.declared = null;
  return null;
}
