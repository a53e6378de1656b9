/**
 * What happens at a live well, as a list: each entry is one act of a person, kept as it was made. State, count and
 * guards all follow from the list (`liveWellOf`), on the phone and on the server alike.
 */
import type { BeamOutcome } from '../cull/index.ts';
import type { ScaleAct } from '../scale/index.ts';
import type { EntryId, FishId, ScaleId, SpeciesId, TagId } from '../ids.ts';

/** A cull tag. Some go by their number, some by their colour. */
export interface FishTag {
  tagId: TagId;
  number: number | null;
  colour: TagColour | null;
}

/** Colours told apart in poor light, each with its word on screen. */
export const TAG_COLOURS = ['white', 'yellow', 'orange', 'red', 'green', 'blue', 'violet', 'black'] as const;
export type TagColour = (typeof TAG_COLOURS)[number];

export const TAG_KINDS = ['clip', 'piercing'] as const;
export type TagKind = (typeof TAG_KINDS)[number];

/** On the fish, or lying loose in its compartment because the fish is hurt or needs its mouth. */
export type TagPlace = 'on' | 'loose';

export const CONDITIONS = ['lively', 'weak', 'hurt', 'bleeding', 'dead'] as const;
export type Condition = (typeof CONDITIONS)[number];

/** What is seen of a fish in the well, to be looked for at every round (common practice, no source). */
export const WELL_SIGNS = ['rolls-over', 'labours', 'bleeds', 'rust-tint', 'fins-still'] as const;
export type WellSign = (typeof WELL_SIGNS)[number];

export const RELEASE_REASONS = ['cull', 'short', 'not-counting', 'own-wish', 'weak', 'weighed-in'] as const;
export type ReleaseReason = (typeof RELEASE_REASONS)[number];

export interface WellSettings {
  /** In the order in which they hang. */
  tags: FishTag[];
  /** The odd one, for the newcomer on the beam. */
  spare: FishTag | null;
  tagKind: TagKind;
  compartments: number;
}

export type WellAct =
  | { kind: 'set-up'; settings: WellSettings }
  | ScaleAct
  | {
      kind: 'fish-in';
      fishId: FishId;
      speciesId: SpeciesId;
      lengthMm: number | null;
      condition: Condition;
      compartment: number;
      tagId: TagId | null;
      tagPlace: TagPlace;
    }
  /** Told of a fish later on: it was seen wrong, or a photograph of it gave its length. */
  | { kind: 'described'; fishId: FishId; speciesId: SpeciesId; lengthMm: number | null }
  | {
      kind: 'weighed';
      fishId: FishId;
      scaleId: ScaleId;
      readG: number;
      /** Typed by hand, taken from a steady scale, or put down on paper or in the scale's memory before. */
      how: 'typed' | 'scale' | 'memory';
      airSeconds: number | null;
    }
  | { kind: 'tagged'; fishId: FishId; tagId: TagId | null; tagPlace: TagPlace }
  | { kind: 'moved'; fishId: FishId; compartment: number }
  | { kind: 'looked'; fishId: FishId; condition: Condition; signs: WellSign[] }
  /** On the beam; an outcome of null where they were taken off again before it was read: they hung all the same. */
  | {
      kind: 'compared';
      leftId: FishId;
      rightId: FishId;
      outcome: BeamOutcome | null;
      hangingSeconds: number | null;
    }
  | { kind: 'released'; fishId: FishId; reason: ReleaseReason; airSeconds: number | null }
  /** How many fish are aboard, as counted by hand at lines-out. */
  | { kind: 'declared'; count: number }
  /** Whether the total is shown to everybody, as unofficial; private until somebody says so. */
  | { kind: 'shared'; isShared: boolean }
  /** Takes an entry back; an undo can be taken back too. */
  | { kind: 'undone'; entryId: EntryId };

export type WellActKind = WellAct['kind'];

export interface WellEntry {
  entryId: EntryId;
  /** ms since 1970, the device's clock. */
  atMs: number;
  act: WellAct;
}
