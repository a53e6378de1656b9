import type { TieBreak } from '@lauta/core/rules';
import type { Standing } from '@lauta/core/scoring';

const TIE_WORDS: Record<TieBreak, string> = {
  'biggest-fish': 'the biggest fish',
  'next-biggest': 'the next biggest fish',
  'earliest-completion': 'who completed the score earlier',
  'more-alive': 'more fish alive at the scale',
};

/** What set equal totals apart, or that nothing did. */
export function TieNote({ standing, names }: { standing: Standing; names: Record<string, string> }) {
  const { tieBreak, sharedWith, score } = standing;
  return (
    <>
      {tieBreak && (
        <p className="mt-1">
          Same total as {tieBreak.entrantIds.map((id) => names[id] ?? '').join(', ')}: set apart by{' '}
          {TIE_WORDS[tieBreak.rule]}.
        </p>
      )}
      {sharedWith.length > 0 && score.steps > 0 && (
        <p className="mt-1">
          The rank is shared with {sharedWith.map((id) => names[id] ?? '').join(', ')}: every tie-break is
          equal.
        </p>
      )}
    </>
  );
}
