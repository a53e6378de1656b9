import { useState } from 'react';
import { Link } from 'react-router';
import { sideOf } from '@lauta/core/care';
import type { RuleSheet } from '@lauta/core/rules';
import type { LiveWell, WellAct, WellRefusal, WellTrouble } from '@lauta/core/well';
import { useNow } from '../../clock/appClock.ts';
import { eventPath, useInEvent } from '../../event/inEvent.ts';
import { hasFailed } from '../../ui/hasFailed.ts';
import { Signal } from '../../ui/Signal.tsx';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { usePagePanel } from '../../ui/usePagePanel.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { useCareChoices } from '../../care/careChoices.ts';
import { useRules } from '../../queries/event.ts';
import { OutboxPanel } from '../../outbox/OutboxPanel.tsx';
import { SchoolLines } from '../../care/SchoolLines.tsx';
import { dayOfNow } from '../../event/dayOfNow.ts';
import { BeamTaps, CullPanel, LengthCull, releaseAndRetag, type BeamPair } from './CullPanel.tsx';
import { FishIn } from './FishIn.tsx';
import { WellFace } from './WellFace.tsx';
import { WellFishList } from './WellFishList.tsx';
import { LookedAndCounted, WellTaps } from './WellTaps.tsx';
import { WellSetUp } from './WellSetUp.tsx';
import { countCarried, troublesNow } from './troublesNow.ts';
import { useWell } from './useWell.ts';
import { countWords } from '@lauta/words/count';
import { REFUSAL_WORDS, troubleWords } from '@lauta/words/well';
import type { EntrantId, FishId, ScaleId } from '@lauta/core/ids';

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

function KeptWell({ entrantId, sheet }: { entrantId: EntrantId; sheet: RuleSheet }) {
  const { event } = useInEvent();
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
  const letGo = (fishId: FishId): void => act(releaseAndRetag(well, fishId));
  return (
    <div className="grid max-w-3xl gap-4">
      <h1 className="sr-only">Well</h1>
      <WellFace well={well} outlook={outlook} troubles={troubles} sheet={sheet} />
      <Troubles troubles={troubles} well={well} sheet={sheet} refusal={refusal} error={onPage.error} />
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
      <WellFishList
        well={well}
        outlook={outlook}
        sheet={sheet}
        scaleId={scaleId}
        nowMs={nowMs}
        unlooked={unlooked}
        openId={openId}
        setOpen={setOpen}
        onActs={act}
      />
      <WellTaps
        well={well}
        outlook={outlook}
        sheet={sheet}
        last={last}
        onHang={hang}
        onLetGo={letGo}
        onIn={() => {
          setRefusal(null);
          whole.open('in');
        }}
        onActs={act}
      />
      <LookedAndCounted
        well={well}
        bagLimit={sheet.bagLimit}
        isOpen={panel === 'count'}
        onToggle={() => setPanel(panel === 'count' ? null : 'count')}
        onActs={act}
      />
      {sideOf('tagging', schools) === 'limit' && well.fish.length < sheet.bagLimit && (
        <p className="text-quiet text-sm">Your guide: tag keepers once you are at the limit.</p>
      )}
      <Contradictions count={well.contradictions.length} />
      <OutboxPanel />
      {sheet.measure.kind === 'weight' && <ShareTotal isShared={well.isShared} onActs={act} />}
      <Link className="btn h-16" to={eventPath(event.eventId, 'well', 'water')}>
        Oxygen, ice and the pump
      </Link>
      <TagsAndScale
        well={well}
        sheet={sheet}
        scaleId={scaleId}
        nowMs={nowMs}
        isOpen={panel === 'set-up'}
        setOpen={(isOpen) => setPanel(isOpen ? 'set-up' : null)}
        onActs={act}
      />
    </div>
  );
}

function Contradictions({ count }: { count: number }) {
  if (count === 0) return null;
  return (
    <Signal tone="look">
      {countWords(count, 'entry does', 'entries do')} not fit the list: kept, without effect. Two phones may
      have told of the same fish.
    </Signal>
  );
}

/** What is wrong in the well, but for what stops everything: that stands on its face. */
function Troubles({
  troubles,
  well,
  sheet,
  refusal,
  error,
}: {
  troubles: readonly WellTrouble[];
  well: LiveWell;
  sheet: RuleSheet;
  refusal: WellRefusal | null;
  error: unknown;
}) {
  return (
    <div className="grid gap-1">
      {troubles
        .filter(({ isStop }) => !isStop)
        .map((trouble) => (
          <Signal key={JSON.stringify(trouble)} tone={trouble.kind === 'dead' ? 'fault' : 'look'}>
            {troubleWords(trouble, well, sheet)}
          </Signal>
        ))}
      {refusal && <Signal tone="fault">{REFUSAL_WORDS[refusal]}</Signal>}
      <ProblemNote error={error} />
    </div>
  );
}

function ShareTotal({ isShared, onActs }: { isShared: boolean; onActs: (acts: readonly WellAct[]) => void }) {
  return (
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
        checked={isShared}
        onChange={(e) => onActs([{ kind: 'shared', isShared: e.target.checked }])}
      />
    </label>
  );
}

function TagsAndScale({
  well,
  sheet,
  scaleId,
  nowMs,
  isOpen,
  setOpen,
  onActs,
}: {
  well: LiveWell;
  sheet: RuleSheet;
  scaleId: ScaleId;
  nowMs: number;
  isOpen: boolean;
  setOpen: (isOpen: boolean) => void;
  onActs: (acts: readonly WellAct[]) => void;
}) {
  return (
    <details
      className="border-base-300 border-t pt-2"
      open={isOpen}
      onToggle={(e) => {
        if (e.currentTarget.open !== isOpen) setOpen(e.currentTarget.open);
      }}
    >
      <summary className="flex min-h-16 cursor-pointer items-center text-lg font-bold">
        Tags and scale
      </summary>
      <WellSetUp well={well} sheet={sheet} scaleId={scaleId} nowMs={nowMs} onActs={onActs} />
      <SchoolLines place="well" />
    </details>
  );
}
