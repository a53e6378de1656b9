import {
  SIGN_WORDS,
  VITALITY_SIGNS,
  clockOf,
  clockVerdict,
  judgeVitality,
  type Handling,
} from '@lauta/core/care';
import type { Tone } from '../../frame/Signal.tsx';
import { HOOK_WORDS, SEEN_WORDS, stopwatch } from './words.ts';

/** The record of how a fish was treated, as words. */
export interface HandlingWords {
  lines: readonly { term: string; value: string }[];
  signals: readonly { tone: Tone; words: string }[];
}

/** Puts a handling into words; what was not tapped is left out, never guessed. */
export function handlingWords(handling: Handling): HandlingWords {
  const { events, airLimitSeconds, hookPlace, bleeds, waterCelsius, airCelsius, signs } = handling;
  const clock = clockOf(events, events.at(-1)?.atMs ?? 0);
  const ended = clock.lifts.filter((lift): lift is { fromMs: number; toMs: number } => lift.toMs !== null);
  const isOpen = ended.length < clock.lifts.length;
  const lines: [string, string | null][] = [
    ['fight', clock.fightMs === null ? null : stopwatch(clock.fightMs)],
    [
      'out of the water',
      clock.lifts.length === 0
        ? 'never'
        : [
            ...ended.map(({ fromMs, toMs }) => stopwatch(toMs - fromMs)),
            ...(isOpen ? ['not ended'] : []),
          ].join(', '),
    ],
    ['from first tap to last', stopwatch(clock.totalMs)],
    ['hook', hookPlace && HOOK_WORDS[hookPlace]],
    ['wound', bleeds ? 'bleeding' : null],
    ['water', waterCelsius === null ? null : `${waterCelsius} °C`],
    ['air', airCelsius === null ? null : `${airCelsius} °C`],
    ...VITALITY_SIGNS.map((sign): [string, string | null] => {
      const seen = signs[sign];
      return [SIGN_WORDS[sign], seen ? SEEN_WORDS[seen] : null];
    }),
  ];
  const signals: { tone: Tone; words: string }[] = [];
  const isOver = ended.some(
    ({ fromMs, toMs }) => clockVerdict((toMs - fromMs) / 1000, airLimitSeconds) === 'over',
  );
  if (isOver) signals.push({ tone: 'look', words: `a lift was over ${airLimitSeconds} s` });
  // Of a lift that nobody ended nothing good can be said.
  if (isOpen) signals.push({ tone: 'look', words: 'the end of a lift was not tapped' });
  if (ended.length > 0 && !isOver && !isOpen)
    signals.push({ tone: 'clear', words: `no lift over ${airLimitSeconds} s` });
  if (judgeVitality(signs).state === 'weak') signals.push({ tone: 'look', words: 'it left weak' });
  if (clock.isMended) signals.push({ tone: 'look', words: 'a time was mended by hand' });
  return {
    lines: lines.flatMap(([term, value]) => (value === null ? [] : [{ term, value }])),
    signals,
  };
}
