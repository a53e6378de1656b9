import { bagLimits, findSpecies, isShort, type RuleSheet } from '../rules/index.ts';
import { scaleRefusal } from '../scale/index.ts';
import type { TagPlace, WellAct } from './acts.ts';
import { findTag, type LiveWell, type WellFish } from './liveWell.ts';
import type { FishId, SpeciesId, TagId } from '../ids.ts';
import { isSmallMouthed } from '../species.ts';

/** What is wrong aboard now. `stop` means: no cast until it is put right. */
export type WellTrouble =
  | { kind: 'over-limit'; isStop: true; count: number; limit: number }
  | { kind: 'species-over' | 'slot-over'; isStop: true; speciesId: SpeciesId; count: number; most: number }
  | { kind: 'short' | 'not-counting'; isStop: true; fishId: FishId }
  | { kind: 'tag-twice'; isStop: false; tagId: TagId; fishIds: FishId[] }
  | { kind: 'spare-in-well'; isStop: false; fishId: FishId }
  | { kind: 'fewer-tags'; isStop: false; untagged: string[] }
  | { kind: 'dead'; isStop: false; fishId: FishId }
  | { kind: 'carried-over'; isStop: true; count: number }
  | { kind: 'count-differs'; isStop: true; declared: number; count: number }
  | { kind: 'not-counted'; isStop: false; count: number }
  | { kind: 'unlooked'; isStop: false; fishIds: FishId[] };

export interface WellMoment {
  nowMs: number;
  /** Whether lines are out: count and declared fish must then agree. */
  isOver: boolean;
  /** Fish that the day before left in its well. */
  carriedOver: number;
  /** After so many minutes a fish wants to be looked at again. */
  roundMinutes: number;
}

/** Each fish is looked at this often where nothing else is set; hurt ones twice as often (common practice, no source). */
export const ROUND_MINUTES = 30;
const MS_PER_MINUTE = 60_000;

/** Minutes since a fish was last seen: at a look, or when it came in. */
export function minutesUnseen(fish: WellFish, nowMs: number): number {
  const seenMs = fish.looks.at(-1)?.atMs ?? fish.inAtMs;
  return Math.max(0, Math.floor((nowMs - seenMs) / MS_PER_MINUTE));
}

/** Injured and small-mouthed fish are looked at first and often. */
export function isFragile({ condition, speciesId }: Pick<WellFish, 'condition' | 'speciesId'>): boolean {
  return (
    condition === 'hurt' || condition === 'bleeding' || condition === 'weak' || isSmallMouthed(speciesId)
  );
}

/** Where a fish's tag belongs by the school that hurt and small-mouthed fish go untagged. */
export function tagPlaceFor(
  fish: Pick<WellFish, 'condition' | 'speciesId'>,
  everyFish: 'not-hurt' | 'all',
): TagPlace {
  return everyFish === 'not-hurt' && isFragile(fish) ? 'loose' : 'on';
}

/** Everything that is wrong aboard, what stops the fishing first. */
export function wellTroubles(sheet: RuleSheet, well: LiveWell, moment: WellMoment): WellTrouble[] {
  const troubles: WellTrouble[] = [
    ...overLimits(sheet, well),
    ...fishThatMayNotStay(sheet, well),
    ...counts(well, moment),
    ...tags(sheet, well),
    ...well.fish.flatMap(({ fishId, condition }): WellTrouble[] =>
      condition === 'dead' ? [{ kind: 'dead', isStop: false, fishId }] : [],
    ),
  ];
  const unlooked = well.fish.filter(
    (fish) =>
      fish.condition !== 'dead' &&
      minutesUnseen(fish, moment.nowMs) >= (isFragile(fish) ? moment.roundMinutes / 2 : moment.roundMinutes),
  );
  if (unlooked.length > 0)
    troubles.push({ kind: 'unlooked', isStop: false, fishIds: unlooked.map(({ fishId }) => fishId) });
  return troubles.sort((a, b) => Number(b.isStop) - Number(a.isStop));
}

function overLimits(sheet: RuleSheet, { fish }: LiveWell): WellTrouble[] {
  return bagLimits(sheet).flatMap(({ kind, speciesId, most, holds }): WellTrouble[] => {
    const count = fish.filter(holds).length;
    if (count <= most) return [];
    if (kind === 'bag') return [{ kind: 'over-limit', isStop: true, count, limit: most }];
    return [
      {
        kind: kind === 'slot' ? 'slot-over' : 'species-over',
        isStop: true,
        speciesId: speciesId ?? '',
        count,
        most,
      },
    ];
  });
}

function fishThatMayNotStay(sheet: RuleSheet, { fish }: LiveWell): WellTrouble[] {
  return fish.flatMap(({ fishId, speciesId, lengthMm }): WellTrouble[] => {
    const species = findSpecies(sheet, speciesId);
    if (!species?.counts) return [{ kind: 'not-counting', isStop: true, fishId }];
    return isShort(species, lengthMm) ? [{ kind: 'short', isStop: true, fishId }] : [];
  });
}

function counts({ fish, declared }: LiveWell, { isOver, carriedOver }: WellMoment): WellTrouble[] {
  const troubles: WellTrouble[] = [];
  if (carriedOver > 0) troubles.push({ kind: 'carried-over', isStop: true, count: carriedOver });
  if (declared && declared.count !== fish.length) {
    troubles.push({ kind: 'count-differs', isStop: true, declared: declared.count, count: fish.length });
  }
  if (isOver && !declared && fish.length > 0)
    troubles.push({ kind: 'not-counted', isStop: false, count: fish.length });
  return troubles;
}

function tags(sheet: RuleSheet, { fish, settings }: LiveWell): WellTrouble[] {
  const troubles: WellTrouble[] = [];
  for (const { tagId } of [...settings.tags, ...(settings.spare ? [settings.spare] : [])]) {
    const bearers = fish.filter((one) => one.tagId === tagId).map(({ fishId }) => fishId);
    if (bearers.length > 1) troubles.push({ kind: 'tag-twice', isStop: false, tagId, fishIds: bearers });
  }
  const spared = fish.find(({ tagId }) => tagId !== null && tagId === settings.spare?.tagId);
  if (spared && fish.length <= sheet.bagLimit)
    troubles.push({ kind: 'spare-in-well', isStop: false, fishId: spared.fishId });
  // Below the limit a school may leave all untagged; a full well with an untagged fish is where fish are mixed up.
  const untagged = fish.filter(({ tagId }) => tagId === null).map(({ fishId }) => fishId);
  if (fish.length >= sheet.bagLimit && untagged.length > 0)
    troubles.push({ kind: 'fewer-tags', isStop: false, untagged });
  return troubles;
}

/** Why an act is not offered, or refused when it is tried. What arrives from elsewhere all the same is kept and told. */
export type WellRefusal =
  | 'fish-gone'
  | 'fish-aboard'
  | 'tag-taken'
  | 'no-such-tag'
  | 'spare-is-for-the-beam'
  | 'same-fish'
  | 'bad-weight'
  | 'bad-length'
  | 'bad-count'
  | 'dead-stays'
  | 'no-such-scale'
  | 'no-such-compartment';

/** Heavier than any fish of the trade; more is a slip of the finger. Our own choice. */
export const HEAVIEST_FISH_G = 60_000;
const LONGEST_FISH_MM = 2500;

export function refusalOf(sheet: RuleSheet, well: LiveWell, act: WellAct): WellRefusal | null {
  const isAboard = (fishId: FishId): boolean => well.fish.some((one) => one.fishId === fishId);
  switch (act.kind) {
    case 'fish-in':
      if ([...well.fish, ...well.gone].some(({ fishId }) => fishId === act.fishId)) return 'fish-aboard';
      if (!isLength(act.lengthMm)) return 'bad-length';
      if (!hasCompartment(well, act.compartment)) return 'no-such-compartment';
      return tagRefusal(sheet, well, act.fishId, act.tagId, well.fish.length + 1);
    case 'tagged':
      if (!isAboard(act.fishId)) return 'fish-gone';
      return tagRefusal(sheet, well, act.fishId, act.tagId, well.fish.length);
    case 'weighed':
      if (!isAboard(act.fishId)) return 'fish-gone';
      if (!well.scales.has(act.scaleId)) return 'no-such-scale';
      return act.readG > 0 && act.readG <= HEAVIEST_FISH_G ? null : 'bad-weight';
    case 'described':
      if (!isAboard(act.fishId)) return 'fish-gone';
      return isLength(act.lengthMm) ? null : 'bad-length';
    case 'moved':
      if (!isAboard(act.fishId)) return 'fish-gone';
      return hasCompartment(well, act.compartment) ? null : 'no-such-compartment';
    case 'looked':
      return isAboard(act.fishId) ? null : 'fish-gone';
    case 'released':
      if (!isAboard(act.fishId)) return 'fish-gone';
      return act.reason === 'cull' && mustStay(sheet, well, act.fishId) ? 'dead-stays' : null;
    case 'compared':
      if (act.leftId === act.rightId) return 'same-fish';
      return isAboard(act.leftId) && isAboard(act.rightId) ? null : 'fish-gone';
    case 'declared':
      return Number.isInteger(act.count) && act.count >= 0 && act.count <= 99 ? null : 'bad-count';
    case 'scale-check':
    case 'scale-repeat':
      return scaleRefusal(well.scales, act);
    default:
      return null;
  }
}

/** A dead fish is not culled where the sheet forbids it. */
export function mustStay(sheet: RuleSheet, well: LiveWell, fishId: FishId): boolean {
  const fish = well.fish.find((one) => one.fishId === fishId);
  return fish?.condition === 'dead' && sheet.weighIn !== undefined && !sheet.weighIn.deadMayBeCulled;
}

const isLength = (lengthMm: number | null): boolean =>
  lengthMm === null || (lengthMm > 0 && lengthMm <= LONGEST_FISH_MM);

const hasCompartment = ({ settings }: LiveWell, compartment: number): boolean =>
  Number.isInteger(compartment) && compartment >= 1 && compartment <= settings.compartments;

function tagRefusal(
  sheet: RuleSheet,
  well: LiveWell,
  fishId: FishId,
  tagId: TagId | null,
  count: number,
): WellRefusal | null {
  if (tagId === null) return null;
  if (!findTag(well.settings, tagId)) return 'no-such-tag';
  if (well.fish.some((one) => one.tagId === tagId && one.fishId !== fishId)) return 'tag-taken';
  return tagId === well.settings.spare?.tagId && count <= sheet.bagLimit ? 'spare-is-for-the-beam' : null;
}
