import type { Finding } from '@lauta/core/photo';
import { Signal } from '../../frame/Signal.tsx';
import { CHECK_WORDS } from './words.ts';

/** What the bench noticed: first what is to be looked at, then, folded away, what is clear. */
export function FindingsList({ findings }: { findings: readonly Finding[] }) {
  const open = findings.filter((finding) => finding.verdict !== 'clear');
  const clear = findings.filter((finding) => finding.verdict === 'clear');
  if (findings.length === 0) return null;
  return (
    <section aria-label="Findings" className="grid gap-1 text-sm">
      {open.map((finding) => (
        <div key={finding.check}>
          <Signal tone={finding.verdict}>{CHECK_WORDS[finding.check]}</Signal>
          <p className="text-quiet pl-5">{finding.why}</p>
        </div>
      ))}
      {clear.length > 0 && (
        <details>
          <summary className="linklike cursor-pointer">
            {open.length === 0 ? `All ${clear.length} checks are clear` : `${clear.length} checks are clear`}
          </summary>
          <ul className="mt-1 grid gap-0.5">
            {clear.map((finding) => (
              <li key={finding.check}>
                <Signal tone="clear">{CHECK_WORDS[finding.check]}</Signal>
                <span className="text-quiet"> {finding.why}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
