import { useState } from 'react';
import { Link } from 'react-router';
import { sideOf } from '@lauta/core/care';
import type { RuleSheet } from '@lauta/core/rules';
import { type WellAct, type WellOutlook, type WellRefusal } from '@lauta/core/well';
import { useNow } from '../../clock/appClock.ts';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { hasFailed } from '../../ui/hasFailed.ts';
import { Signal } from '../../ui/Signal.tsx';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { usePagePanel } from '../../ui/usePagePanel.ts';
import { useWho } from '../../session/session.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { useCareChoices } from '../../care/careChoices.ts';
import { useRules } from '../../queries/event.ts';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { SchoolLines } from '../../care/SchoolLines.tsx';
import { dayOfNow } from '../../event/dayOfNow.ts';
import { BeamTaps, CullPanel, LengthCull, releaseAndRetag, type BeamPair } from './CullPanel.tsx';
import { FishActions } from './FishActions.tsx';
import { FishIn } from './FishIn.tsx';
import { FishRow } from './FishRow.tsx';
import { WellFace } from './WellFace.tsx';
import { WellSetUp } from './WellSetUp.tsx';
import { countCarried, troublesNow } from './troublesNow.ts';
import { useWell } from './useWell.ts';
import { REFUSAL_WORDS, actWords, fishWords, troubleWords } from '@lauta/words/well';

/** The live well: read at arm's length, one main action under the thumb. */
export function WellPage() {
  const { event, place } = useInEvent();
  const rules = useRules(event.eventId);
  if (hasFailed(rules)) return <Failed error={rules.error} retry={() => void rules.refetch()} />;
  if (rules.isPending) return <Loading what="Fetching the rules" />;
  if (!place.entrantId)
    return (
      <Empty title="Only a boat sees its own well">Sign in as an angler of this event to keep one.</Empty>
    );
  const sheet = rules.data.at(-1)?.sheet;
  if (!sheet)
    return (
      <Empty title="No rule sheet yet">The director publishes it; then the well knows its limits.</Empty>
    );
  return <KeptWell entrantId={place.entrantId} sheet={sheet} />;
}

function KeptWell({ entrantId, sheet }: { entrantId: string; sheet: RuleSheet }) {
  const { event } = useInEvent();
  const who = useWho();
  const now = useNow(5000);
  const nowMs = now.getTime();
  const today = dayOfNow(event, nowMs);
  const dayId = today?.dayId ?? '';
  const { view, onPage } = useWell(event, entrantId, dayId, sheet);
  const whole = usePagePanel();
  const [panel, setPanel] = useState<'set-up' | 'count' | null>(null);
  const [pair, setPair] = useState<BeamPair | null>(null);
  const [openId, setOpen] = useState<string | null>(null);
  const [refusal, setRefusal] = useState<WellRefusal | null>(null);
  const { schools } = useCareChoices();
  const { well, outlook, last, scaleId, carried } = onPage;
  if (hasFailed(view)) return <Failed error={view.error} retry={() => void view.refetch()} />;
  if (view.isPending) return <Loading what="Looking into the well" />;
  if (!today) return <Empty title="The event has no day">The director sets its days.</Empty>;
  const carriedCount = countCarried(carried);
  const troubles = troublesNow(event, dayId, sheet, well, carriedCount, nowMs);
  const unlooked = troubles.flatMap((one) => (one.kind === 'unlooked' ? one.fishIds : []));
  const act = (acts: readonly WellAct[]): void => {
    const why = onPage.enter(acts);
    setRefusal(why);
    if (why !== null) return;
    setPanel((former) => (former === 'set-up' ? former : null));
    setOpen(null);
    if (whole.panel !== null) whole.close();
  };
  const isOver = well.fish.length > sheet.bagLimit;
  if (whole.panel === 'in') {
    return (
      <div className="grid max-w-3xl gap-4">
        {refusal && <Signal tone="fault">{REFUSAL_WORDS[refusal]}</Signal>}
        <FishIn well={well} sheet={sheet} scaleId={scaleId} onDone={act} onCancel={whole.close} />
      </div>
    );
  }
  if (whole.panel === 'beam' && pair) {
    return (
      <div className="grid max-w-3xl gap-4">
        <h1 className="sr-only">On the beam</h1>
        <BeamTaps pair={pair} well={well} sheet={sheet} onOutcome={act} onCancel={whole.close} />
      </div>
    );
  }
  const hang = (two: BeamPair): void => {
    setPair(two);
    whole.open('beam');
  };
  const letGo = (fishId: string): void => act(releaseAndRetag(well, fishId));
  const next = mainAct(outlook);
  const byTag = well.fish.toSorted(
    (a, b) => hangingPlace(onPage.well, a.tagId) - hangingPlace(onPage.well, b.tagId),
  );
  return (
    <div className="grid max-w-3xl gap-4">
      <h1 className="sr-only">Well</h1>
      <WellFace well={well} outlook={outlook} troubles={troubles} sheet={sheet} />
      <div className="grid gap-1">
        {troubles
          .filter(({ isStop }) => !isStop)
          .map((trouble) => (
            <Signal key={JSON.stringify(trouble)} tone={trouble.kind === 'dead' ? 'fault' : 'look'}>
              {troubleWords(trouble, well, sheet)}
            </Signal>
          ))}
        {refusal && <Signal tone="fault">{REFUSAL_WORDS[refusal]}</Signal>}
        <ProblemNote error={onPage.error} />
      </div>
      {carriedCount > 0 && (
        <button type="button" className="btn h-16" onClick={onPage.emptyEarlierDays}>
          They were released: clear the earlier day’s list
        </button>
      )}
      {outlook.kind === 'weight' ? (
        <CullPanel well={well} outlook={outlook} sheet={sheet} onLetGo={letGo} onHang={hang} />
      ) : (
        <LengthCull well={well} outlook={outlook} sheet={sheet} />
      )}
      <ul className="ruled border-base-300 border-y" aria-label="Fish in the well">
        {byTag.map((fish) => (
          <li key={fish.fishId}>
            <FishRow
              fish={fish}
              well={well}
              outlook={outlook}
              sheet={sheet}
              nowMs={nowMs}
              isSmallest={fish.fishId === outlook.smallestId}
              isUnlooked={unlooked.includes(fish.fishId)}
              isOpen={openId === fish.fishId}
              onOpen={() => setOpen(openId === fish.fishId ? null : fish.fishId)}
            />
            {openId === fish.fishId && (
              <FishActions
                fish={fish}
                well={well}
                outlook={outlook}
                sheet={sheet}
                scaleId={scaleId}
                onActs={act}
              />
            )}
          </li>
        ))}
      </ul>
      <div className="bg-base-100 border-base-300 grid grid-cols-[2fr_1fr] gap-2 max-lg:sticky max-lg:bottom-16 max-lg:z-10 max-lg:-mx-4 max-lg:border-t max-lg:px-4 max-lg:py-3">
        {next ? (
          <button
            type="button"
            className="btn btn-primary h-16 text-lg"
            onClick={() => (next.kind === 'hang' ? hang(next.pair) : letGo(next.fishId))}
          >
            {next.kind === 'hang'
              ? `Hang ${next.pair.map((fishId) => fishWords(well, sheet, fishId)).join(' and ')}`
              : `Let ${fishWords(well, sheet, next.fishId)} go`}
          </button>
        ) : (
          <button
            type="button"
            className={`btn h-16 text-lg ${isOver ? '' : 'btn-primary'}`}
            onClick={() => {
              setRefusal(null);
              whole.open('in');
            }}
          >
            A fish comes in
          </button>
        )}
        <button
          type="button"
          className="btn h-16 px-1 text-sm leading-tight"
          disabled={!last}
          onClick={() => last && act([{ kind: 'undone', entryId: last.entryId }])}
        >
          {last ? `Undo: ${actWords(last.act, well, sheet)}` : 'Undo'}
        </button>
      </div>
      <div className="grid gap-2">
        <div className="grid grid-cols-2 gap-2">
          <button
            type="button"
            className="btn h-16 px-1 leading-tight"
            disabled={well.fish.length === 0}
            onClick={() => act(lookAtAll(well.fish))}
          >
            All looked at, no change
          </button>
          <button
            type="button"
            aria-expanded={panel === 'count'}
            className="btn h-16 px-1 leading-tight"
            onClick={() => setPanel(panel === 'count' ? null : 'count')}
          >
            Count by hand
          </button>
        </div>
        {panel === 'count' && (
          <div className="grid grid-cols-4 gap-2 sm:grid-cols-8" role="group" aria-label="Fish counted">
            {Array.from({ length: sheet.bagLimit + 3 }, (_, count) => (
              <button
                key={count}
                type="button"
                className="btn num h-16 text-xl"
                onClick={() => act([{ kind: 'declared', count }])}
              >
                {count}
              </button>
            ))}
          </div>
        )}
      </div>
      {sideOf('tagging', schools) === 'limit' && well.fish.length < sheet.bagLimit && (
        <p className="text-quiet text-sm">Your guide: tag keepers once you are at the limit.</p>
      )}
      {well.contradictions.length > 0 && (
        <Signal tone="look">
          {well.contradictions.length} {well.contradictions.length === 1 ? 'entry does' : 'entries do'} not
          fit the list: kept, without effect. Two phones may have told of the same fish.
        </Signal>
      )}
      <OutboxPanel accountId={who.data?.account?.accountId ?? null} />
      {sheet.measure.kind === 'weight' && (
        <label className="flex min-h-16 items-center justify-between gap-4">
          <span>
            Show the total to everybody
            <span className="text-quiet block text-sm">
              On the standings, as unofficial. Until you say so it is yours alone.
            </span>
          </span>
          <input
            type="checkbox"
            className="toggle toggle-lg flex-none"
            checked={well.isShared}
            onChange={(e) => act([{ kind: 'shared', isShared: e.target.checked }])}
          />
        </label>
      )}
      <Link className="btn h-16" to={eventPath(event.eventId, 'well', 'water')}>
        Oxygen, ice and the pump
      </Link>
      <details
        className="border-base-300 border-t pt-2"
        open={panel === 'set-up'}
        onToggle={(e) => {
          if (e.currentTarget.open !== (panel === 'set-up')) setPanel(e.currentTarget.open ? 'set-up' : null);
        }}
      >
        <summary className="flex min-h-16 cursor-pointer items-center text-lg font-bold">
          Tags and scale
        </summary>
        <WellSetUp well={well} sheet={sheet} scaleId={scaleId} nowMs={nowMs} onActs={act} />
        <SchoolLines place="well" />
      </details>
    </div>
  );
}

/** With one too many aboard the one thing to do: hang two, or let one go. */
function mainAct(
  outlook: WellOutlook,
): { kind: 'hang'; pair: BeamPair } | { kind: 'let-go'; fishId: string } | null {
  if (outlook.kind === 'length')
    return outlook.releaseId === null ? null : { kind: 'let-go', fishId: outlook.releaseId };
  const { advice } = outlook;
  if (advice.kind === 'beam') return { kind: 'hang', pair: [advice.beam.leftId, advice.beam.rightId] };
  return advice.kind === 'release' ? { kind: 'let-go', fishId: advice.fishId } : null;
}

/** Fish stand in the order in which their tags hang; those without one last. */
function hangingPlace(
  { settings }: { settings: { tags: { tagId: string }[] } },
  tagId: string | null,
): number {
  const place = settings.tags.findIndex((tag) => tag.tagId === tagId);
  return place < 0 ? settings.tags.length : place;
}

function lookAtAll(
  fish: readonly { fishId: string; condition: Extract<WellAct, { kind: 'looked' }>['condition'] }[],
): WellAct[] {
  return fish.map(({ fishId, condition }) => ({ kind: 'looked', fishId, condition, signs: [] }));
}
