import { VITALITY_SIGNS, clockOf, clockState, judgeVitality, type Handling } from '@lauta/core/care';
import { SIGN_WORDS } from './vitality.ts';
import { formatTemperature, type StepId } from '@lauta/core/units';
import type { Tone } from './tone.ts';
import { clockTime } from './clock.ts';
import { HOOK_WORDS, LEFT_WITH_WORDS, SEEN_WORDS, stopwatch } from './care.ts';

/** The record of how a fish was treated, as words. */
export interface HandlingWords {
  lines: readonly { term: string; value: string }[];
  signals: readonly { tone: Tone; words: string }[];
}

/** Puts a handling into words, its times in a zone (IANA), temperatures in the unit of an event that scores in such steps; what was not tapped is left out, never guessed. */
export function handlingWords(handling: Handling, zone: string, step: StepId): HandlingWords {
  const { events, airLimitSeconds, hookPlace, bleeds, leftWith = [], waterCelsius, airCelsius, signs } = handling; // prettier-ignore
  const clock = clockOf(events, events.at(-1)?.atMs ?? 0);
  const ended = clock.lifts.filter((lift): lift is { fromMs: number; toMs: number } => lift.toMs !== null);
  const isOpen = ended.length < clock.lifts.length;
  const released = events.find(({ step }) => step === 'released');
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
    ['rest in the net', clock.restTotalMs > 0 ? stopwatch(clock.restTotalMs) : null],
    ['lifts', clock.lifts.length > 1 ? String(clock.lifts.length) : null],
    ['from first tap to last', stopwatch(clock.totalMs)],
    ['released at', released ? clockTime(new Date(released.atMs).toISOString(), zone, true) : null],
    ['hook', hookPlace && HOOK_WORDS[hookPlace]],
    ['wound', bleeds ? 'bleeding' : null],
    ['left with', leftWith.map((one) => LEFT_WITH_WORDS[one]).join(', ') || null],
    ['water', waterCelsius === null ? null : formatTemperature(waterCelsius, step)],
    ['air', airCelsius === null ? null : formatTemperature(airCelsius, step)],
    ...VITALITY_SIGNS.map((sign): [string, string | null] => {
      const seen = signs[sign];
      return [SIGN_WORDS[sign], seen ? SEEN_WORDS[seen] : null];
    }),
  ];
  const signals: { tone: Tone; words: string }[] = [];
  const isOver = ended.some(
    ({ fromMs, toMs }) => clockState((toMs - fromMs) / 1000, airLimitSeconds) === 'over',
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
