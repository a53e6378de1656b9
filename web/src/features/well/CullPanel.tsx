import { useEffect, useRef, useState } from 'react';
import type { BeamOutcome } from '@lauta/core/cull';
import type { RuleSheet } from '@lauta/core/rules';
import { formatSmallMass, formatSteps, massUnitOf } from '@lauta/core/units';
import type { LengthOutlook, LiveWell, WellAct, WeightOutlook } from '@lauta/core/well';
import { appNow } from '../../clock/appClock.ts';
import { Signal } from '../../ui/Signal.tsx';
import { adviceWords, fishWords, thumbWords } from '@lauta/words/well';
import type { FishId } from '@lauta/core/ids';

/** Left and right on the beam. */
export type BeamPair = readonly [string, string];

/** With one too many aboard: what to let go, what the beam would settle, and the trade's own rule beside it. */
export function CullPanel({
  well,
  outlook,
  sheet,
  onLetGo,
  onHang,
}: {
  well: LiveWell;
  outlook: WeightOutlook;
  sheet: RuleSheet;
  onLetGo: (fishId: FishId) => void;
  onHang: (pair: BeamPair) => void;
}) {
  const { advice } = outlook;
  if (advice.kind === 'keep-all') return null;
  const thumb = thumbWords(outlook, well, sheet);
  const thumbPair: BeamPair | null =
    outlook.thumb?.kind === 'beam' ? [outlook.thumb.leftId, outlook.thumb.rightId] : null;
  return (
    <section aria-labelledby="cull" className="grid gap-3">
      <h2 id="cull" className="sr-only">
        Which fish to cull
      </h2>
      <p className="text-2xl leading-tight font-bold" role="status">
        {adviceWords(advice, well, sheet, outlook)}
      </p>
      {thumb && <p className="text-quiet">{thumb}</p>}
      {outlook.contradictions.map(({ comparison }) => (
        <Signal key={`${comparison.leftId}${comparison.rightId}`} tone="look">
          The beam and the scale disagree on {fishWords(well, sheet, comparison.leftId)} and{' '}
          {fishWords(well, sheet, comparison.rightId)}. Both are kept: weigh both again.
        </Signal>
      ))}
      {advice.kind === 'beam' && (
        <button type="button" className="btn h-16" onClick={() => onLetGo(advice.fishId)}>
          Let {fishWords(well, sheet, advice.fishId)} go without the beam
        </button>
      )}
      {advice.kind === 'release' && thumbPair && (
        <button type="button" className="btn h-16" onClick={() => onHang(thumbPair)}>
          Hang {fishWords(well, sheet, thumbPair[0])} and {fishWords(well, sheet, thumbPair[1])} all the same
        </button>
      )}
      {(advice.kind === 'release' || advice.kind === 'beam') && (
        <table className="w-full text-sm tabular-nums">
          <caption className="sr-only">What letting each fish go would cost</caption>
          <thead className="text-quiet text-left">
            <tr>
              <th className="font-normal">fish</th>
              <th className="pl-3 text-right font-normal">best to let go</th>
              <th className="pl-3 text-right font-normal">costs on average</th>
              <th className="pl-3 text-right font-normal">lifted</th>
            </tr>
          </thead>
          <tbody className="ruled">
            {advice.odds
              .toSorted((a, b) => a.expectedLossG - b.expectedLossG)
              .map(({ fishId, probability, expectedLossG }) => {
                const fish = well.fish.find((one) => one.fishId === fishId);
                return (
                  <tr key={fishId}>
                    <th scope="row" className="py-1 text-left font-bold">
                      {fishWords(well, sheet, fishId)}
                    </th>
                    <td className="text-right">{(100 * probability).toFixed(0)} %</td>
                    <td className="pl-3 text-right">
                      {Number.isFinite(expectedLossG)
                        ? formatSmallMass(expectedLossG, massUnitOf(sheet.measure.step))
                        : 'must stay'}
                    </td>
                    <td className="pl-3 text-right whitespace-nowrap">
                      {fish?.liftings ?? 0}×, {fish?.hangingSeconds ?? 0} s hung
                    </td>
                  </tr>
                );
              })}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** The loser goes, the spare tag ends free, the winner carries the numbered tag. */
export function releaseAndRetag(well: LiveWell, fishId: FishId): WellAct[] {
  const loser = well.fish.find((one) => one.fishId === fishId);
  const spareId = well.settings.spare?.tagId ?? null;
  const newcomer = well.fish.find((one) => spareId !== null && one.tagId === spareId);
  const acts: WellAct[] = [{ kind: 'released', fishId, reason: 'cull', airSeconds: null }];
  if (newcomer && newcomer !== loser && loser?.tagId && loser.tagId !== spareId) {
    acts.push({ kind: 'tagged', fishId: newcomer.fishId, tagId: loser.tagId, tagPlace: newcomer.tagPlace });
  }
  return acts;
}

/** Both hang: a clock runs, and one tap says which hangs lower. */
export function BeamTaps({
  pair: [leftId, rightId],
  well,
  sheet,
  onOutcome,
  onCancel,
}: {
  pair: BeamPair;
  well: LiveWell;
  sheet: RuleSheet;
  onOutcome: (acts: WellAct[]) => void;
  onCancel: () => void;
}) {
  const [fromMs] = useState(() => appNow().getTime());
  const [seconds, setSeconds] = useState(0);
  const first = useRef<HTMLButtonElement | null>(null);
  useEffect(() => {
    first.current?.focus();
    const timer = setInterval(() => setSeconds(Math.floor((appNow().getTime() - fromMs) / 1000)), 250);
    return () => clearInterval(timer);
  }, [fromMs]);
  const tell = (outcome: BeamOutcome | null): void =>
    onOutcome([
      {
        kind: 'compared',
        leftId,
        rightId,
        outcome,
        hangingSeconds: Math.round((appNow().getTime() - fromMs) / 1000),
      },
    ]);
  const left = fishWords(well, sheet, leftId);
  const right = fishWords(well, sheet, rightId);
  return (
    <div className="border-error grid gap-4 border-l-8 pl-3" role="group" aria-label="On the beam">
      <p>
        <b className="num text-error text-5xl">{seconds}</b> s hanging. Which hangs lower? Seconds only, both
        hanging free.
      </p>
      <div className="grid grid-cols-3 gap-2">
        <button
          ref={first}
          type="button"
          className="btn h-20 px-1 text-lg leading-tight"
          onClick={() => tell('left')}
        >
          {left} lower
        </button>
        <button type="button" className="btn h-20 px-1 text-lg leading-tight" onClick={() => tell('level')}>
          level
        </button>
        <button type="button" className="btn h-20 px-1 text-lg leading-tight" onClick={() => tell('right')}>
          {right} lower
        </button>
      </div>
      <div className="grid grid-cols-2 gap-2">
        <button type="button" className="btn h-16" onClick={() => tell(null)}>
          Cancel: not read
        </button>
        <button type="button" className="btn h-16" onClick={onCancel}>
          They never hung
        </button>
      </div>
    </div>
  );
}

/** In a length event the shortest goes, by whole steps. */
export function LengthCull({
  well,
  outlook,
  sheet,
}: {
  well: LiveWell;
  outlook: LengthOutlook;
  sheet: RuleSheet;
}) {
  const { releaseId } = outlook;
  if (well.fish.length <= sheet.bagLimit) return null;
  const steps = outlook.fish.find(({ fishId }) => fishId === releaseId)?.steps ?? 0;
  return (
    <p className="text-2xl leading-tight font-bold" role="status">
      {releaseId === null
        ? 'Measure every fish: then it is plain which one goes.'
        : `Let ${fishWords(well, sheet, releaseId)} go: the shortest, ${formatSteps(steps, sheet.measure.step)}.`}
    </p>
  );
}
