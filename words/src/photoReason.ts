import type { BenchReasons, Finding } from '@lauta/vision';
import { sentenceOf, type Sentences } from './sentence.ts';

const percent = (share: number): string => `${Math.round(100 * share)} %`;

const SENTENCES: Sentences<BenchReasons> = {
  'board-approved': ({ board }) => `The lines are those of the ${board}.`,
  'board-of-another-kind': ({ board }) => `The lines are those of another kind of board, the ${board}.`,
  'no-board-found': 'No board was found: a person has to look.',
  'no-fish-found': 'No fish was found on the board: a person has to look.',

  'stop-at-right': 'The stop is on the right: the board lies the wrong way round in the picture.',
  'stop-in-place': 'The stop is where it should be.',
  'tail-at-stop': 'The end at the stop widens like a tail.',
  'head-at-stop': 'The head is at the stop.',
  'head-at-left': 'The head is on the left.',
  'eye-and-back-near': 'Eye and back are on the near side: the back points to the angler.',
  'eye-near': 'The eye seems to be on the near side: is the back there?',
  'eye-far': 'The eye is on the far side.',
  'flank-hidden': 'Too little of the flank is free to tell back from belly.',
  'belly-far': 'The belly is on the far side: the back points to the angler.',
  'flank-lighter-far': 'The flank is lighter on the far side: is the belly there?',
  'back-far': 'The back is on the far side.',
  'tail-shadow': 'The tail’s shadow lies beside it: does it stand up?',
  'body-hidden': 'Too little of the body is free to tell.',
  'tail-aside': 'The tail lies beside the body’s line.',
  'tail-straight': 'The tail continues the body’s line.',

  'hand-on-tail': 'A hand lies on the tail.',
  'hand-near-tail': 'A hand is near the tail’s end.',
  'tail-free': 'The tail lies free.',
  'hand-over-eye': 'A hand hides the eye.',
  'hand-near-eye': 'A hand is near the eye.',
  'hand-at-head': 'A hand is at the head, and no eye is seen.',
  'eye-free': 'No hand is near the eye.',
  'fingers-at-gills': 'Fingers are at the gill cover: see whether any is under it.',
  'hand-beside-gills': 'A hand comes in at the gill cover: see whether any finger is under it.',
  'gills-free': 'No fingers are at the gill cover.',
  'tool-from-head': 'Something narrow reaches from the head over the board’s edge, like a gripping tool.',
  'tool-over-stop': 'Something lies over the stop beside the head, like a gripping tool.',
  'no-tool': 'No tool is seen at the head.',

  'long-thing-beside': 'Something long lies on the board beside the fish.',
  'one-fish': 'One fish lies on the board.',
  'other-colour-over-nose': 'Something of another colour lies over the nose at the stop.',
  'stop-hidden-high': 'The stop is hidden higher than a nose reaches: is anything over it?',
  'nose-may-be-hidden': 'The nose at the stop may be hidden.',
  'nose-seen': 'The nose is seen at the stop.',
  'head-hidden': 'Too little of the head is seen at the stop.',

  'nose-in-picture': 'Nose and stop are in the picture.',
  'nose-at-edge': 'The nose or the stop lies at or beyond the picture’s edge.',
  'tail-at-edge': 'The tail reaches the picture’s edge.',
  'tail-in-picture': 'The tail’s end is in the picture.',
  'camera-tilt': ({ tiltDeg, limitDeg }) =>
    `The camera looks ${tiltDeg.toFixed(1)}° off straight down; ${limitDeg}° are allowed.`,

  'jaws-closed': 'No opening is seen between the jaws.',
  'jaws-apart': 'The jaws stand apart.',
  'dark-wedge': 'Something dark and wedge-shaped is seen between the jaws.',
  'jaws-may-be-apart': 'The mouth may be open a little.',
  'red-before-head': 'Something red lies in front of the head.',

  'lines-read': 'The lines at the tail can be read.',
  'lines-read-in-part': ({ share }) => `${percent(share)} of the free lines at the tail can be read.`,
  'all-blurred': 'The whole picture is blurred.',
  'may-be-blurred': 'The picture may be blurred.',
  'edges-sharp': 'The picture’s edges are sharp.',

  'camera-over-stop': 'From over the stop the nose’s place cannot be told.',
  'nose-apart': 'The nose does not reach the stop.',
  'nose-in-dark': 'The nose may not touch the stop: it is dark there.',
  'nose-touches': 'The nose touches the stop.',

  'no-screen': 'No screen’s grid or frame was found.',
  'screen-grid': ({ periodPx }) => gridWords(periodPx),
  'screen-grid-and-frame': ({ periodPx }) => `${gridWords(periodPx)} A dark frame is at its edge.`,
  'screen-frame': ({ side }) => `A dark frame ends straight at the picture’s ${side}: is it a screen?`,

  'code-read': 'The card’s code was read.',
  'reflection-read': 'A reflection lies on the card; its code could be read.',
  'uneven-read': 'Light and shade, or a reflection, divide the card; its code could be read.',
  'card-seen': 'A card is seen.',
  'code-unreadable': 'A code is seen, but it cannot be read.',
  'card-shines': 'The card shines, and its code cannot be read.',
  'no-reflection': 'No reflection was found on the card.',
  'card-not-cut': 'The card is not cut off.',
  'reflection-hides': 'A reflection hides the card’s code.',
  'card-without-code': 'What looks like a card shows no readable code: read it yourself.',
  'code-hidden': 'The card’s code is hidden, or it has none.',
  'reflection-may-hide': 'The card’s code is not seen: a reflection may hide it.',
  'card-in-part': 'A part of what may be a card is seen.',
  'card-cut': 'The card is cut off at the picture’s edge.',
  'white-at-edge': 'Something white ends at the picture’s edge: is it the card?',
  'no-card-around': 'No card is seen on the board or around it.',
  'no-card': 'No card is seen.',
  'no-code': 'No code was read.',
  'code-uncompared': 'The code was read; there is no code of the day to compare it with.',
  'code-of-day': 'The code is this entrant’s for the day.',
  'two-cards': 'Two cards: one is this entrant’s for the day, another is not.',
  'card-of-event': 'The card is another event’s.',
  'not-an-identifier': ({ text }) => `The code is no identifier: “${text}”.`,
  'card-of-entrant': ({ entrantNumber, expectedNumber }) =>
    `The card is entrant ${entrantNumber}’s, not ${expectedNumber}’s.`,
  'code-of-another-day': ({ readCode }) =>
    `The card’s code is ${readCode}; this entrant’s for the day is another.`,
  'no-reading': 'No reading was made.',
  'card-over-reading': 'The card lies over the lines at the reading.',
  'card-may-be-over-reading': 'What may be a card lies at the reading.',
  'reading-free': 'No card lies at the reading.',
};

function gridWords(periodPx: number): string {
  return `A grid of ${periodPx.toFixed(1)} px runs through the picture, as when a screen is photographed.`;
}

/** Why a check of the photograph says what it says. */
export function photoReason({ reason }: Pick<Finding, 'reason'>): string {
  return sentenceOf(SENTENCES, reason);
}
