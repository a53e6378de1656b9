import type { RuleSheet } from '@lauta/core/rules';
import { useInEvent } from '../../event/inEvent.ts';
import { hasFailed } from '../../ui/hasFailed.ts';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { useWho } from '../../session/who.ts';
import { useRules } from '../../queries/event.ts';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { SpecimenBank } from './SpecimenBank.tsx';
import { SpecimenRecord } from './SpecimenRecord.tsx';
import { useBank } from './useBank.ts';
import { useSpecimens, useWaitingSpecimens } from '../../queries/specimens.ts';
import type { EntrantId } from '@lauta/core/ids';

/** Large fish weighed on the bank: one is being recorded at the top, those recorded stand beneath. */
export function SpecimenPage() {
  const { event, place } = useInEvent();
  const rules = useRules(event.eventId);
  if (hasFailed(rules)) return <Failed error={rules.error} retry={() => void rules.refetch()} />;
  if (rules.isPending) return <Loading what="Fetching the rules" />;
  const sheet = rules.data.at(-1)?.sheet;
  if (!sheet)
    return <Empty title="No rule sheet yet">The director publishes it: it names the kinds of fish.</Empty>;
  const isOfficial = place.may('see-specimens');
  if (!place.entrantId && !isOfficial)
    return <Empty title="Only entrants record specimens">Sign in as an angler of this event.</Empty>;
  return <Specimens sheet={sheet} entrantId={place.entrantId} isOfficial={isOfficial} />;
}

function Specimens({
  sheet,
  entrantId,
  isOfficial,
}: {
  sheet: RuleSheet;
  entrantId: EntrantId | null;
  isOfficial: boolean;
}) {
  const { event } = useInEvent();
  const who = useWho();
  const view = useSpecimens(event.eventId, isOfficial);
  const waiting = useWaitingSpecimens(event.eventId, { number: 0, name: who.data?.account?.name ?? '' });
  const bank = useBank(event.eventId, sheet);
  const known = view.data?.specimens ?? [];
  const all = [
    ...known,
    ...waiting.filter((one) => !known.some(({ specimenId }) => specimenId === one.specimenId)),
  ];
  const corrected = new Set(all.flatMap(({ corrects }) => (corrects ? [corrects.specimenId] : [])));
  return (
    <div className="grid max-w-3xl gap-6">
      {entrantId ? <SpecimenBank sheet={sheet} entrantId={entrantId} bank={bank} /> : <h1>Specimens</h1>}
      <OutboxPanel />
      <section aria-labelledby="recorded" className="grid gap-3">
        <h2 id="recorded">Recorded</h2>
        {hasFailed(view) && <Failed error={view.error} retry={() => void view.refetch()} />}
        {view.isPending && <Loading what="Fetching the records" />}
        {view.data && all.length === 0 && (
          <p className="text-quiet">
            None yet. A record scores nothing: it keeps what was weighed, how, and how the fish left.
          </p>
        )}
        <ol className="grid gap-6">
          {all.toReversed().map((one) => (
            <li key={one.specimenId}>
              <SpecimenRecord
                record={one}
                sheet={sheet}
                zone={event.zone}
                showsEntrant={isOfficial}
                isCorrected={one.correctedBy !== null || corrected.has(one.specimenId)}
                {...(one.entrantId === entrantId && one.receivedAt !== '' && bank.isBlank
                  ? {
                      onCorrect: () => {
                        bank.correct(one);
                        document.getElementById('page')?.scrollTo({ top: 0 });
                        window.scrollTo({ top: 0 });
                      },
                    }
                  : {})}
              />
            </li>
          ))}
        </ol>
      </section>
    </div>
  );
}
