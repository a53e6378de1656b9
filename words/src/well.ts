import { countWords } from './count.ts';
import type { CullAdvice } from '@lauta/core/cull';
import type { RuleSheet } from '@lauta/core/rules';
import { formatMass, formatSmallMass, massUnitOf, type MassUnit } from '@lauta/core/units';
import {
  findTag,
  type Condition,
  type FishTag,
  type Gain,
  type LiveWell,
  type ReleaseReason,
  type WellAct,
  type WellRefusal,
  type WellSign,
  type WellTrouble,
  type WeightOutlook,
} from '@lauta/core/well';
import type { Tone } from './tone.ts';
import { speciesName } from './catch.ts';
import { chanceWords } from './chance.ts';
import type { FishId } from '@lauta/core/ids';

export const CONDITION_WORDS: Record<Condition, { word: string; tone: Tone }> = {
  lively: { word: 'lively', tone: 'clear' },
  weak: { word: 'weak', tone: 'look' },
  hurt: { word: 'hurt', tone: 'look' },
  bleeding: { word: 'bleeding', tone: 'fault' },
  dead: { word: 'dead', tone: 'fault' },
};

export const SIGN_WORDS: Record<WellSign, string> = {
  'rolls-over': 'rolls over',
  labours: 'mouth labours',
  bleeds: 'bleeds',
  'rust-tint': 'rust-like tint',
  'fins-still': 'fins are still',
};

export const REASON_WORDS: Record<ReleaseReason, string> = {
  cull: 'culled',
  short: 'short',
  'not-counting': 'does not count',
  'own-wish': 'let go by choice',
  weak: 'too weak to keep',
  'weighed-in': 'after the weigh-in',
};

export const REFUSAL_WORDS: Record<WellRefusal, string> = {
  'fish-gone': 'This fish was let go already. Undo that first if it was another one.',
  'fish-aboard': 'This fish is in the well already.',
  'tag-taken': 'That tag is on another fish. Take it off there first.',
  'no-such-tag': 'There is no such tag in this set.',
  'spare-is-for-the-beam': 'The spare tag is for the one fish over the limit. Take a numbered tag.',
  'same-fish': 'Two different fish hang on a beam.',
  'bad-weight': 'No fish weighs that. Read the scale again.',
  'bad-length': 'No fish is that long. Measure it again.',
  'bad-count': 'Count the fish: a whole number.',
  'dead-stays': 'The rules let no dead fish be culled: it stays in the bag.',
  'no-such-scale': 'Describe the scale first.',
  'no-such-compartment': 'The well has no such compartment.',
};

/** A tag in words: by its number, by its colour, or both. */
export function tagWords(tag: FishTag | null): string {
  if (!tag) return 'no tag';
  const parts = [tag.colour, tag.number === null ? null : String(tag.number)].filter((one) => one !== null);
  return parts.length === 0 ? 'tag' : parts.join(' ');
}

/** How a fish aboard is spoken of: by its tag, else by its kind. */
export function fishWords(well: LiveWell, sheet: RuleSheet, fishId: FishId): string {
  const fish = [...well.fish, ...well.gone].find((one) => one.fishId === fishId);
  if (!fish) return 'a fish';
  const tag = findTag(well.settings, fish.tagId);
  if (!tag) return `the untagged ${speciesName(sheet, fish.speciesId).toLowerCase()}`;
  if (tag.tagId === well.settings.spare?.tagId) return 'the new one';
  return tag.number === null ? (tag.colour ?? 'tag') : String(tag.number);
}

/** The advice in one sentence. */
export function adviceWords(
  advice: CullAdvice,
  well: LiveWell,
  sheet: RuleSheet,
  outlook: WeightOutlook,
): string {
  const unit = massUnitOf(sheet.measure.step);
  const name = (fishId: FishId): string => fishWords(well, sheet, fishId);
  switch (advice.kind) {
    case 'keep-all':
      return 'All fit.';
    case 'none-may-go':
      return 'The rules let none of these fish go. Ask the director.';
    case 'release': {
      const odds = advice.odds.find(({ fishId }) => fishId === advice.fishId);
      const sure = odds ? chanceWords(odds.probability) : '';
      const isRisk = (odds?.probability ?? 1) < 0.9;
      return isRisk && odds
        ? `Let ${name(advice.fishId)} go: ${sure}, at stake ${formatSmallMass(odds.expectedLossG, unit)}. A beam would not help enough.`
        : `Let ${name(advice.fishId)} go: ${sure}. No beam needed.`;
    }
    case 'beam': {
      const { leftId, rightId } = advice.beam;
      const mass = (fishId: FishId): number => outlook.fish.find((one) => one.fishId === fishId)?.massG ?? 0;
      const gap = Math.abs(mass(leftId) - mass(rightId));
      return `${capital(name(leftId))} or ${name(rightId)}: ${formatSmallMass(gap, unit)} apart. Hang both on the beam: then ${chanceWords(advice.beam.probabilityAfter)} sure.`;
    }
  }
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** What the trade's rule of thumb says of the same fish. */
export function thumbWords(outlook: WeightOutlook, well: LiveWell, sheet: RuleSheet): string | null {
  const { thumb } = outlook;
  if (!thumb) return null;
  const gap = formatSmallMass(thumb.gapG, massUnitOf(sheet.measure.step));
  const name = (fishId: FishId): string => fishWords(well, sheet, fishId);
  return thumb.kind === 'scale'
    ? `Rule of thumb: a quarter pound or more apart (${gap}), so the scale decides: ${name(thumb.fishId)} goes.`
    : `Rule of thumb: under a quarter pound apart (${gap}), so the beam decides between ${name(thumb.leftId)} and ${name(thumb.rightId)}.`;
}

const GAIN_WORDS: Record<Gain['name'], string> = {
  ounce: 'an ounce',
  pound: 'a pound',
  'hundred-grams': '100 g',
  kilogram: 'a kilogram',
};

export const gainWords = ({ name, needsG }: Gain, unit: MassUnit): string =>
  `${formatMass(needsG, unit)} gains ${GAIN_WORDS[name]}`;

export function troubleWords(trouble: WellTrouble, well: LiveWell, sheet: RuleSheet): string {
  const name = (fishId: FishId): string => fishWords(well, sheet, fishId);
  const species = (id: string): string => speciesName(sheet, id).toLowerCase();
  switch (trouble.kind) {
    case 'over-limit':
      return `${trouble.count} aboard, the limit is ${trouble.limit}. Do not cast.`;
    case 'species-over':
      return `${trouble.count} ${species(trouble.speciesId)}, at most ${trouble.most} may be kept. Do not cast.`;
    case 'slot-over':
      return `${trouble.count} ${species(trouble.speciesId)} in the slot, at most ${trouble.most} may be kept. Do not cast.`;
    case 'short':
      return `${capital(name(trouble.fishId))} is short. Let it go.`;
    case 'not-counting':
      return `${capital(name(trouble.fishId))} is of a kind that does not count. Let it go.`;
    case 'tag-twice':
      return `Tag ${tagWords(findTag(well.settings, trouble.tagId))} is on ${trouble.fishIds.length} fish.`;
    case 'spare-in-well':
      return 'The spare tag is in the well. Give that fish a numbered one.';
    case 'fewer-tags':
      return `The well is full and ${countWords(trouble.untagged.length, 'fish has', 'fish have')} no tag.`;
    case 'dead':
      return `${capital(name(trouble.fishId))} is dead: it costs at the scale.`;
    case 'carried-over':
      return `${trouble.count} fish of an earlier day still stand in its list. Nobody fishes on with them.`;
    case 'count-differs':
      return `Counted ${trouble.declared}, but the list has ${trouble.count}. Count again, then mend the list.`;
    case 'not-counted':
      return `Lines are out. Count the fish by hand: the list has ${trouble.count}.`;
    case 'unlooked':
      return `Look at ${trouble.fishIds.map(name).join(', ')}.`;
  }
}

/** What was done last, for the button that takes it back. */
export function actWords(act: WellAct, well: LiveWell, sheet: RuleSheet): string {
  const name = (fishId: FishId): string => fishWords(well, sheet, fishId);
  switch (act.kind) {
    case 'set-up':
      return 'tags changed';
    case 'scale':
      return 'scale described';
    case 'scale-check':
    case 'scale-repeat':
      return 'scale checked';
    case 'fish-in':
      return `${name(act.fishId)} came in`;
    case 'described':
      return `${name(act.fishId)} described`;
    case 'weighed':
      return `${name(act.fishId)} weighed`;
    case 'tagged':
      return `${name(act.fishId)} tagged`;
    case 'moved':
      return `${name(act.fishId)} moved`;
    case 'looked':
      return `${name(act.fishId)} looked at`;
    case 'compared':
      return `${name(act.leftId)} and ${name(act.rightId)} ${act.outcome === null ? 'hung, not read' : 'compared'}`;
    case 'released':
      return `${name(act.fishId)} let go`;
    case 'declared':
      return `counted ${act.count}`;
    case 'shared':
      return act.isShared ? 'total shared' : 'total private';
    case 'undone':
      return 'taken back';
  }
}
