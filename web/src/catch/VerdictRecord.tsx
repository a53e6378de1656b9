import type { CatchView } from '@lauta/contract';
import type { LengthStepId } from '@lauta/core/units';
import { dayAndTime } from '@lauta/words/clock';
import { useInEvent } from '../event/inEvent.ts';
import { Signal } from '../ui/Signal.tsx';
import { INFRACTION_WORDS, decisionWords } from '@lauta/words/catch';

/** Every decision and every answer, oldest first: the former ones stay. */
export function VerdictRecord({ caught, step }: { caught: CatchView; step: LengthStepId }) {
  const { event } = useInEvent();
  if (caught.verdicts.length === 0) return null;
  return (
    <section aria-labelledby="record">
      <h2 id="record">What was decided</h2>
      <ol className="ruled border-base-300 mt-1 border-y">
        {caught.verdicts.map(({ verdictId, decidedAt, judge, decision }) => {
          const { word, tone, says } = decisionWords(decision, step);
          const infractions = 'infractions' in decision ? decision.infractions : [];
          return (
            <li key={verdictId} className="py-2">
              <Signal tone={tone}>{word}</Signal>{' '}
              <span className="text-quiet text-sm">
                by {judge}, {dayAndTime(decidedAt, event.zone)}
              </span>
              {infractions.length > 0 && <p>{infractions.map((one) => INFRACTION_WORDS[one]).join(', ')}</p>}
              {says && <p>“{says}”</p>}
              {caught.answers
                .filter((answer) => answer.verdictId === verdictId)
                .map((answer) => (
                  <div key={answer.answerId} className="border-base-300 mt-1 ml-3 border-l-2 pl-3">
                    <p className="text-quiet text-sm">answered {dayAndTime(answer.answeredAt, event.zone)}</p>
                    {answer.words && <p>“{answer.words}”</p>}
                    {answer.photographId && (
                      <a
                        className="linklike"
                        href={`/api/photographs/${answer.photographId}/screen`}
                        target="_blank"
                        rel="noreferrer"
                      >
                        the photograph sent with it
                      </a>
                    )}
                  </div>
                ))}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
