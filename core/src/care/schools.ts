/** Parts of the day at which a school changes what Lauta shows. */
export const SCHOOL_PLACES = [
  'prepare',
  'landing',
  'lift',
  'photographs',
  'release',
  'well',
  'judging',
] as const;
export type SchoolPlace = (typeof SCHOOL_PLACES)[number];

/** @param shownAt where on the water it matters @param usual the side taken until a person chooses */
const school = <Id extends string, Side extends string>(
  id: Id,
  shownAt: readonly SchoolPlace[],
  usual: NoInfer<Side>,
  sides: readonly Side[],
) => ({ id, sides, usual, shownAt });

/**
 * Questions on which careful anglers disagree. Both answers are named wherever the question matters, and each person
 * chooses the own one; the event's rule sheet holds over all of them. Common practice, no published source. Question
 * and answers are in words.
 */
export const SCHOOLS = [
  school('air-time', ['lift', 'photographs'], 'six-seconds', ['six-seconds', 'breath', 'thirty-seconds']),
  school('photographs', ['photographs'], 'burst', ['burst', 'few']),
  school('resting', ['landing'], 'rest', ['rest', 'tire']),
  school('tail', ['photographs', 'judging'], 'untouched', ['untouched', 'pinched']),
  school('hand', ['photographs'], 'none', ['none', 'behind']),
  school('tail-lift', ['lift'], 'never', ['never', 'carried']),
  school('vertical', ['lift'], 'supported', ['supported', 'hanging']),
  school('reviving', ['release'], 'still', ['still', 'side-to-side']),
  school('unhooking', ['landing', 'release'], 'at-once', ['at-once', 'later']),
  school('barbs', ['prepare'], 'barbless', ['barbless', 'micro-barb']),
  school('hooks', ['prepare'], 'single', ['single', 'double']),
  school('landing', ['prepare', 'landing'], 'net', ['net', 'swung']),
  school('gloves', ['prepare', 'lift'], 'bare', ['bare', 'gloves']),
  school('tags', ['well'], 'number', ['number', 'colour']),
  school('tagging', ['well'], 'each', ['each', 'limit']),
  school('tag-kind', ['well', 'prepare'], 'clip', ['clip', 'piercing']),
  school('scale-notes', ['well'], 'at-once', ['at-once', 'memory', 'paper']),
  school('every-fish', ['well'], 'not-hurt', ['not-hurt', 'all']),
] as const;

export type KnownSchool = (typeof SCHOOLS)[number];
export type SchoolId = KnownSchool['id'];
export type SideOf<Id extends SchoolId> = Extract<(typeof SCHOOLS)[number], { id: Id }>['sides'][number];

/** What a person chose; what is missing is as usual. */
export type ChosenSchools = Partial<{ [Id in SchoolId]: SideOf<Id> }>;

/** The side that holds: the person's, else the usual one. What nobody knows any more is passed over. */
export function sideOf<Id extends SchoolId>(
  id: Id,
  chosen: Readonly<Record<string, string | undefined>>,
): SideOf<Id> {
  const found: { sides: readonly string[]; usual: string } | undefined = SCHOOLS.find((one) => one.id === id);
  const known = (side: string | undefined): side is string =>
    side !== undefined && found?.sides.includes(side) === true;
  return (known(chosen[id]) ? chosen[id] : found?.usual) as SideOf<Id>;
}

/** The questions that matter at a place. */
export function schoolsAt(place: SchoolPlace): readonly KnownSchool[] {
  return SCHOOLS.filter(({ shownAt }) => shownAt.includes(place));
}

/** The questions that first come up at a place: asked there, so that each is asked once. */
export function schoolsFirstAt(place: SchoolPlace): readonly KnownSchool[] {
  return schoolsAt(place).filter(({ shownAt }) => shownAt[0] === place);
}
