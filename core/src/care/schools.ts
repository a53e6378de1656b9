/**
 * Questions on which careful anglers disagree. Both answers are named wherever the question matters, and each person
 * chooses the own one; the event's rule sheet holds over all of them. Common practice, no published source.
 */
export interface School {
  id: string;
  question: string;
  sides: readonly { id: string; words: string }[];
  /** The side taken until a person chooses. */
  usual: string;
  /** Where on the water it matters; each of these places shows it. */
  shownAt: readonly SchoolPlace[];
}

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

const school = <Id extends string, Side extends string>(
  id: Id,
  question: string,
  shownAt: readonly SchoolPlace[],
  usual: NoInfer<Side>,
  sides: Record<Side, string>,
) => ({
  id,
  question,
  sides: (Object.entries(sides) as [Side, string][]).map(([side, words]) => ({ id: side, words })),
  usual: usual as Side,
  shownAt,
});

export const SCHOOLS = [
  school('air-time', 'How long may a fish be out of the water?', ['lift', 'photographs'], 'six-seconds', {
    'six-seconds': 'As little as can be: six seconds a lift.',
    breath: 'No longer than your own held breath.',
    'thirty-seconds': 'Up to thirty seconds between rests in the net.',
  }),
  school('photographs', 'How many photographs in one lift?', ['photographs'], 'burst', {
    burst: 'A burst of ten or more in one go, on a wet board.',
    few: 'One or two, then water.',
  }),
  school('resting', 'Let it tire, or let it rest?', ['landing'], 'rest', {
    rest: 'The net is for recovery: land it fresh, rest it, then lift.',
    tire: 'Let it tire in net or grip until it lies still.',
  }),
  school('tail', 'May the tail be touched?', ['photographs', 'judging'], 'untouched', {
    untouched: 'The fin must not be touched.',
    pinched: 'It may be pinched or placed to gain length.',
  }),
  school('hand', 'May a hand be in the picture?', ['photographs'], 'none', {
    none: 'Best with no hand in it.',
    behind: 'Fine behind the gill cover.',
  }),
  school('tail-lift', 'May a fish be lifted by the tail?', ['lift'], 'never', {
    never: 'Never by the tail alone: think of the spine.',
    carried: 'Thumb and finger round the wrist of the tail, the other hand carrying.',
  }),
  school('vertical', 'May it hang from the jaw?', ['lift'], 'supported', {
    supported: 'Belly supported; never for long, never levering the jaw.',
    hanging: 'By the jaw straight down is fine for bass.',
  }),
  school('reviving', 'How is a tired fish revived?', ['release'], 'still', {
    still: 'Upright, head into a gentle flow, and wait.',
    'side-to-side': 'Moved from side to side so that water passes the gills; never back and forth.',
  }),
  school('unhooking', 'When does the hook come out?', ['landing', 'release'], 'at-once', {
    'at-once': 'At once, under water.',
    later: 'Just before it leaves, after the photograph; the lure may stay if the contact is seen.',
  }),
  school('barbs', 'Which barbs?', ['prepare'], 'barbless', {
    barbless: 'Barbless or flattened: on a tight line no more are lost.',
    'micro-barb': 'Micro-barb; circle hooks for large mouths.',
  }),
  school('hooks', 'Which hooks?', ['prepare'], 'single', {
    single: 'Single.',
    double: 'Double; never treble for release.',
  }),
  school('landing', 'How is it landed?', ['prepare', 'landing'], 'net', {
    net: 'A deep knotless rubber net.',
    swung: 'Swung aboard, low, line caught by hand.',
  }),
  school('gloves', 'Gloves or bare hands?', ['prepare', 'lift'], 'bare', {
    bare: 'Wet bare hands, for the fish’s slime.',
    gloves: 'Gloves or a tool, for spines, teeth and rough jaws.',
  }),
  school('tags', 'How are tags told apart?', ['well'], 'number', {
    number: 'By number, in catch order.',
    colour: 'By colour.',
  }),
  school('tagging', 'When is a keeper tagged?', ['well'], 'each', {
    each: 'Each at once: fewer handlings, no miscount.',
    limit: 'Only at the limit.',
  }),
  school('tag-kind', 'Which tag?', ['well', 'prepare'], 'clip', {
    clip: 'A clip that does not pierce.',
    piercing: 'Piercing ones hold better; clips may bruise: log it.',
  }),
  school('scale-notes', 'Where are weights kept?', ['well'], 'at-once', {
    'at-once': 'Entered here as each fish is weighed.',
    memory: 'In the scale’s memory, entered here later; emptied every morning.',
    paper: 'On paper, entered here later.',
  }),
  school('every-fish', 'Is every fish tagged?', ['well'], 'not-hurt', {
    'not-hurt':
      'Hurt and small-mouthed fish go untagged, their tag loose in that compartment, looked at often.',
    all: 'All, for order.',
  }),
] as const satisfies readonly School[];

export type SchoolId = (typeof SCHOOLS)[number]['id'];
export type SideOf<Id extends SchoolId> = Extract<
  (typeof SCHOOLS)[number],
  { id: Id }
>['sides'][number]['id'];

/** What a person chose; what is missing is as usual. */
export type ChosenSchools = Partial<{ [Id in SchoolId]: SideOf<Id> }>;

/** The side that holds: the person's, else the usual one. What nobody knows any more is passed over. */
export function sideOf<Id extends SchoolId>(
  id: Id,
  chosen: Readonly<Record<string, string | undefined>>,
): SideOf<Id> {
  const found = SCHOOLS.find((one) => one.id === id) as School;
  const known = (side: string | undefined): side is string => found.sides.some((one) => one.id === side);
  return (known(chosen[id]) ? chosen[id] : found.usual) as SideOf<Id>;
}

/** The questions that matter at a place. */
export function schoolsAt(place: SchoolPlace): readonly School[] {
  return (SCHOOLS as readonly School[]).filter(({ shownAt }) => shownAt.includes(place));
}

/** The questions that first come up at a place: asked there, so that each is asked once. */
export function schoolsFirstAt(place: SchoolPlace): readonly School[] {
  return schoolsAt(place).filter(({ shownAt }) => shownAt[0] === place);
}
