import {
  CRAFTS,
  PREPARE_GROUPS,
  prepareList,
  readinessOf,
  type PrepareGroup,
  type PrepareItem,
} from '@lauta/core/planning';
import { PREPARE_WORDS } from '@lauta/words/prepare';
import { waysToLose } from '@lauta/core/rules';
import { useNow } from '../../clock/appClock.ts';
import { Signal } from '../../ui/Signal.tsx';
import { Empty, Failed, Loading } from '../../ui/states.tsx';
import { useInEvent } from '../../event/inEvent.ts';
import { useStoredBoards } from '../../queries/boards.ts';
import { useIdentifiers, useRules } from '../../queries/event.ts';
import { RuleSentences } from '../../event/RuleSentences.tsx';
import { SchoolLines } from '../../care/SchoolLines.tsx';
import { dayOfNow } from '../../event/dayOfNow.ts';
import { Routine } from './Routine.tsx';
import { SelfChecks } from './SelfChecks.tsx';
import { TodaysCode } from './TodaysCode.tsx';
import { usePreparedness } from '../../device/preparedness.ts';
import { CRAFT_WORDS, GROUP_WORDS, wayWords } from '@lauta/words/readiness';
import { hasFailed } from '../../ui/hasFailed.ts';

/** Before launch: what to have ready, what Lauta can check itself, the day's code, and what the rules ask. */
export function PreparePage() {
  const { event, place } = useInEvent();
  const now = useNow(60_000);
  const day = dayOfNow(event, now.getTime()) ?? event.days[0];
  const { prepared, change, see } = usePreparedness(event.eventId, day?.dayId ?? '');
  const rules = useRules(event.eventId);
  const boards = useStoredBoards(event.eventId);
  const identifiers = useIdentifiers(event.eventId, place.entrantId);
  if (!place.entrantId || !day)
    return <Empty title="Only entrants prepare here">Sign in as an angler of this event.</Empty>;
  if (hasFailed(rules)) return <Failed error={rules.error} retry={() => void rules.refetch()} />;
  if (rules.isPending) return <Loading what="Fetching the rules" />;
  const sheet = rules.data.at(-1)?.sheet;
  const list = prepareList(sheet?.measure.kind ?? 'length', prepared.craft);
  const itemsOf = (group: PrepareGroup): PrepareItem[] => list.filter((item) => item.group === group);
  const ticked = new Set(prepared.ticked);
  const readiness = readinessOf(list, ticked, prepared.checks);
  const code = identifiers.data?.find(({ dayId }) => dayId === day.dayId)?.code ?? null;
  const isFetched = boards.data !== undefined && identifiers.data !== undefined && sheet !== undefined;
  const isWaiting = code === null && (identifiers.isPending || day.codesFrom !== null);
  return (
    <div className="grid max-w-3xl gap-7">
      <div>
        <h1>Prepare</h1>
        <p role="status" className="flex flex-wrap items-baseline gap-x-4">
          <b className="num text-4xl">
            {readiness.done} of {readiness.of}
          </b>
          <Signal tone={readiness.isReady ? 'clear' : readiness.failed.length > 0 ? 'fault' : 'look'}>
            {readiness.isReady
              ? 'ready for the water'
              : readiness.failed.length > 0
                ? 'something is not right yet'
                : 'not all is ready yet'}
          </Signal>
        </p>
      </div>
      <TodaysCode day={day} code={code} entrantId={place.entrantId} step={sheet?.measure.step ?? null} />
      <SelfChecks see={see} isAtHand={isFetched ? true : null} hasCode={isWaiting ? null : code !== null} />
      <fieldset>
        <legend className="text-quiet">You set out from</legend>
        <div className="grid grid-cols-3 gap-2">
          {CRAFTS.map((craft) => (
            <button
              key={craft}
              type="button"
              aria-pressed={prepared.craft === craft}
              className={`btn h-16 ${prepared.craft === craft ? 'btn-primary' : ''}`}
              onClick={() => change({ craft })}
            >
              {CRAFT_WORDS[craft]}
            </button>
          ))}
        </div>
      </fieldset>
      {PREPARE_GROUPS.filter((group) => list.some((item) => item.group === group)).map((group) => (
        <section key={group} aria-labelledby={`group-${group}`}>
          <h2 id={`group-${group}`}>{GROUP_WORDS[group]}</h2>
          <ul className="ruled border-base-300 border-y">
            {itemsOf(group).map((item) => (
              <Item
                key={item.id}
                item={item}
                isTicked={ticked.has(item.id)}
                seen={item.check ? (prepared.checks[item.check] ?? null) : null}
                tick={(isTicked) =>
                  change({
                    ticked: isTicked
                      ? [...prepared.ticked, item.id]
                      : prepared.ticked.filter((id) => id !== item.id),
                  })
                }
              />
            ))}
          </ul>
        </section>
      ))}
      <SchoolLines place="prepare" />
      {sheet && prepared.craft === 'boat' && <SchoolLines place="well" />}
      <Routine />
      {sheet && (
        <>
          <section aria-labelledby="ways">
            <h2 id="ways">How a fish loses its points here</h2>
            <ol className="ruled border-base-300 border-y [&>li]:py-2">
              {waysToLose(sheet).map((way, i) => (
                <li key={i}>
                  <span className="num text-quiet mr-2">{i + 1}</span>
                  {wayWords(way, sheet.measure.step)}
                </li>
              ))}
            </ol>
          </section>
          <section aria-labelledby="rules">
            <h2 id="rules">The rules</h2>
            <RuleSentences sheet={sheet} eventId={event.eventId} />
          </section>
        </>
      )}
    </div>
  );
}

function Item({
  item,
  isTicked,
  seen,
  tick,
}: {
  item: PrepareItem;
  isTicked: boolean;
  /** What Lauta saw; null where it has not looked, or cannot. */
  seen: boolean | null;
  tick: (isTicked: boolean) => void;
}) {
  const words = PREPARE_WORDS[item.id];
  return (
    <li className="py-1">
      <label className="flex min-h-16 items-center gap-4">
        <input
          type="checkbox"
          className="checkbox checkbox-lg flex-none"
          checked={isTicked || seen === true}
          disabled={seen === true}
          onChange={({ currentTarget }) => tick(currentTarget.checked)}
        />
        <span className="grow">{words.what}</span>
        {seen !== null && <Signal tone={seen ? 'clear' : 'fault'}>{seen ? 'seen' : 'not right'}</Signal>}
      </label>
      <details className="pl-11">
        <summary className="linklike inline-flex min-h-11 items-center text-sm">
          Why, and how to check
        </summary>
        <p className="text-quiet text-sm">
          {words.why} {words.how}
        </p>
      </details>
    </li>
  );
}
