/** The catalogue of infractions: the checks that a photograph can fail. The ids are stable; words for people are made by the interface. */
export const INFRACTIONS = [
  'nose-gap',
  'mouth-open',
  'head-cropped',
  'tail-cropped',
  'tail-curled',
  'tail-held',
  'identifier-missing',
  'identifier-cropped',
  'identifier-wrong',
  'identifier-glare',
  'identifier-over-reading',
  'facing-right',
  'dorsal-near',
  'eye-covered',
  'hand-in-gills',
  'grip-in-photo',
  'contact-hidden',
  'cord-in-gills',
  'more-fish',
  'screen-photo',
  'steep-camera',
  'unsharp',
  'craft-missing',
  'wrong-board',
] as const;

export type Infraction = (typeof INFRACTIONS)[number];
