import type { ReactNode } from 'react';
import { formatSmallLength, type StepId } from '@lauta/core/units';
import type { Finding, FindingMeasure } from '@lauta/vision';
import { Signal } from '../ui/Signal.tsx';
import { INFRACTION_WORDS } from '@lauta/words/catch';
import { CHECK_WORDS, RESHOOT_WORDS } from './words.ts';
import { countWords } from '@lauta/words/count';
import { photoReason } from '@lauta/words/photoReason';

interface Props {
  findings: readonly Finding[];
  /** What the event scores in: gaps are written in the same unit. */
  step: StepId;
  /** Shows where a finding lies; without it places are not offered. */
  onShow?: (finding: Finding) => void;
  /** Whether to say what to do for another frame. */
  isFishThere?: boolean;
  /** What stands beside an open finding: the judge's key and what the rules make of it. */
  beside?: (finding: Finding) => ReactNode;
}

/** Faults first, then what is to be looked at. */
export function openFindings(findings: readonly Finding[]): Finding[] {
  const rank = { fault: 0, look: 1, clear: 2 };
  return findings
    .filter(({ tone, isUnanswered }) => tone !== 'clear' && !isUnanswered)
    .sort((a, b) => rank[a.tone] - rank[b.tone] || b.confidence - a.confidence);
}

/** What the bench noticed: first what is to be looked at, then, folded away, what is clear. */
export function FindingsList({ findings, step, onShow, isFishThere = false, beside }: Props) {
  const open = openFindings(findings);
  const clear = findings.filter((finding) => finding.tone === 'clear');
  const unanswered = findings.filter(({ isUnanswered }) => isUnanswered);
  const [unasked] = unanswered;
  if (findings.length === 0) return null;
  return (
    <section aria-label="Findings" className="grid gap-1 text-sm">
      {open.map((finding) => (
        <div key={finding.check} className="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-x-2">
          {onShow && finding.place ? (
            <button
              type="button"
              className="min-h-6.5 cursor-pointer text-left hover:underline"
              onClick={() => onShow(finding)}
            >
              <Head finding={finding} step={step} />
            </button>
          ) : (
            <Head finding={finding} step={step} />
          )}
          {beside?.(finding)}
          <p className="text-quiet col-span-2 pl-5">{photoReason(finding)}</p>
          {isFishThere && <p className="col-span-2 pl-5">{RESHOOT_WORDS[finding.check]}</p>}
        </div>
      ))}
      {unasked && (
        <p>
          <Signal tone="look">
            {countWords(unanswered.length, 'check', 'checks')} could not be answered
          </Signal>{' '}
          <span className="text-quiet">{photoReason(unasked)}</span>
        </p>
      )}
      {clear.length > 0 && (
        <details>
          <summary className="linklike cursor-pointer">
            {clearWords(clear.length, clear.length === findings.length)}
          </summary>
          <ul className="mt-1 grid gap-0.5">
            {clear.map((finding) => (
              <li key={finding.check}>
                <Signal tone="clear">{CHECK_WORDS[finding.check]}</Signal>
                <span className="text-quiet"> {photoReason(finding)}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

function clearWords(count: number, isAll: boolean): string {
  if (isAll) return `All ${countWords(count, 'check', 'checks')} are clear`;
  return `${countWords(count, 'check is', 'checks are')} clear`;
}

function Head({ finding, step }: { finding: Finding; step: StepId }) {
  return (
    <Signal tone={finding.tone}>
      {finding.tone === 'fault' ? INFRACTION_WORDS[finding.check] : `${CHECK_WORDS[finding.check]}?`}
      {finding.measure && <span className="num font-normal">, {measureWords(finding.measure, step)}</span>}
    </Signal>
  );
}

/** A measure with its unit, for people. */
export function measureWords({ value, unit }: FindingMeasure, step: StepId): string {
  if (unit === 'share') return `${Math.round(value * 100)} %`;
  return unit === 'mm' ? formatSmallLength(value, step) : `${value.toFixed(0)}°`;
}
