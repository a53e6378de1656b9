import type { OutboxEntry } from './outboxStore.ts';

/** What a waiting command is, in a few words. */
export const WAITING_WORDS: Record<OutboxEntry['command']['kind'], string> = {
  'event.create': 'a new event',
  'rules.publish': 'a rule sheet',
  'board.add': 'a kind of board',
  'people.add': 'a person',
  'people.accept': 'roles taken up',
  'people.remove': 'roles taken away',
  'waters.publish': 'the event’s waters',
  'captures.tell': 'what this device signed',
  'catch.announce': 'advance notice of a claim',
  'catch.claim': 'a claim',
  'catch.judge': 'a verdict',
  'catch.answer': 'an answer',
  'catch.handle': 'how a fish left',
  'catch.time': 'the time of a fish',
  'catch.clip': 'a clip of a release',
  'frames.ask': 'a request for frames',
  'frame.send': 'a frame that a judge asked for',
  'weigh-in.enter': 'what was done at the scale',
  'specimen.record': 'a specimen',
  'well.enter': 'what was done at the well',
  'results.declare': 'that the results are official',
  'codes.reveal': 'the time of the codes',
  'catch.withdraw': 'a withdrawal',
  'catch.restore': 'a withdrawal undone',
};

/** Bytes for people. */
export function sizeWords(bytes: number): string {
  return bytes >= 100_000 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.ceil(bytes / 1000)} kB`;
}
