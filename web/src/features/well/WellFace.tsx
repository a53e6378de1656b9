import { isWeightSheet, type RuleSheet } from '@lauta/core/rules';
import { formatMass, formatSmallMass, formatSteps, massUnitOf, unitOf } from '@lauta/core/units';
import {
  gains,
  slotWorths,
  totalSteps,
  type LiveWell,
  type WellOutlook,
  type WellTrouble,
} from '@lauta/core/well';
import { fishWords, gainWords, troubleWords } from '@lauta/words/well';

/** Two standard uncertainties (GUM G.1.3: about 95 %, normal). */
const COVERAGE = 2;

/** What is read at arm's length: how many, how much, what the next must beat, and whether to stop. */
export function WellFace({
  well,
  outlook,
  troubles,
  sheet,
}: {
  well: LiveWell;
  outlook: WellOutlook;
  troubles: readonly WellTrouble[];
  sheet: RuleSheet;
}) {
  const stops = troubles.filter(({ isStop }) => isStop);
  const isStop = stops.length > 0;
  return (
    <section
      aria-label="The well at a glance"
      className={isStop ? 'bg-error text-error-content -mx-4 px-4 py-3 sm:-mx-7 sm:px-7' : ''}
    >
      <div role="status" className="grid gap-1">
        {stops.map((trouble) => (
          <b key={JSON.stringify(trouble)} className="text-2xl leading-tight">
            {troubleWords(trouble, well, sheet)}
          </b>
        ))}
      </div>
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-1">
        <p className="leading-none">
          <b className="num text-7xl">{well.fish.length}</b>
          <span className="num text-2xl"> of {sheet.bagLimit}</span>
        </p>
        {well.fish.length <= sheet.bagLimit && <Total outlook={outlook} sheet={sheet} />}
      </div>
      {well.fish.length <= sheet.bagLimit && <NextMustBeat well={well} outlook={outlook} sheet={sheet} />}
    </section>
  );
}

function Total({ outlook, sheet }: { outlook: WellOutlook; sheet: RuleSheet }) {
  const { step } = sheet.measure;
  const figure =
    outlook.kind === 'length'
      ? formatSteps(outlook.totalSteps, step)
      : isWeightSheet(sheet)
        ? formatSteps(totalSteps(sheet, outlook), step)
        : '';
  return (
    <p className="text-right leading-none">
      <b className="num text-5xl">{figure}</b> <span className="text-xl">{unitOf(step)}</span>
      {outlook.kind === 'weight' && outlook.fish.length > 0 && (
        <span className="num block pt-1 text-base">
          ± {formatSmallMass(COVERAGE * outlook.totalSigmaG, massUnitOf(sheet.measure.step))}
        </span>
      )}
    </p>
  );
}

function NextMustBeat({ well, outlook, sheet }: { well: LiveWell; outlook: WellOutlook; sheet: RuleSheet }) {
  const unit = massUnitOf(sheet.measure.step);
  if (well.fish.length === 0)
    return <p className="pt-2 text-lg">The well is empty. Any fish that may be kept counts.</p>;
  if (outlook.kind === 'length') {
    const { nextMustBeatSteps, smallestId } = outlook;
    return (
      <p className="pt-2 text-lg">
        {nextMustBeatSteps === null ? (
          `Room for ${Math.max(0, sheet.bagLimit - well.fish.length)} more: any that may be kept counts.`
        ) : (
          <>
            The next must beat <b className="num">{formatSteps(nextMustBeatSteps, sheet.measure.step)}</b>
            {smallestId && `: ${fishWords(well, sheet, smallestId)}, the shortest`}.
          </>
        )}
      </p>
    );
  }
  const { nextMustBeatG, smallestId } = outlook;
  const least = slotWorths(outlook).find(({ fishId, upToBestG }) => fishId === smallestId && upToBestG > 0);
  return (
    <div className="pt-2">
      <p className="text-lg">
        {nextMustBeatG === null ? (
          `Room for ${Math.max(0, sheet.bagLimit - well.fish.length)} more: any that may be kept counts.`
        ) : (
          <>
            The next must beat <b className="num text-2xl">{formatMass(nextMustBeatG, unit)}</b>
            {smallestId && `: ${fishWords(well, sheet, smallestId)}, the smallest`}.
          </>
        )}
      </p>
      {isWeightSheet(sheet) && nextMustBeatG !== null && (
        <p>
          {gains(sheet, outlook)
            .map((gain) => gainWords(gain, unit))
            .join(', ')}
          .{' '}
          {least && (
            <span className="text-quiet">
              That slot holds {Math.round(100 * least.share)} % of the bag; with one like the best it gains{' '}
              {formatMass(least.upToBestG, unit)}.
            </span>
          )}
        </p>
      )}
    </div>
  );
}
