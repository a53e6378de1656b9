import type { BenchReadingView } from '@lauta/contract';
import type { Finding } from '@lauta/vision';
import type { Infraction, LengthSheet } from '@lauta/core/rules';
import { useKeys, type PageKey } from '../../ui/Keys.tsx';
import { penaltyWords } from '@lauta/words/catch';
import { FindingsList, openFindings } from '../../bench/FindingsList.tsx';
import { CHECK_WORDS } from '../../bench/words.ts';

/** Keys of the open findings, in their order; none of them is used elsewhere on the page. */
const KEYS = ['Q', 'W', 'E', 'T', 'Y', 'U', 'I', 'O', 'P'] as const;

interface Props {
  found: BenchReadingView | undefined;
  isPending: boolean;
  sheet: LengthSheet;
  infractions: readonly Infraction[];
  /** Null where nothing can be decided. */
  toggle: ((infraction: Infraction) => void) | null;
  onShow: (finding: Finding) => void;
}

/**
 * What the server found in the original. Its key goes to the place and confirms the fault, or takes that back; what
 * nobody confirms has no effect.
 */
export function DeskFindings({ found, isPending, sheet, infractions, toggle, onShow }: Props) {
  const findings = found?.analysis.findings ?? [];
  const open = openFindings(findings);
  const confirm = (finding: Finding): void => {
    onShow(finding);
    toggle?.(finding.check);
  };
  useKeys(
    toggle
      ? open.flatMap((finding, i): PageKey[] => {
          const key = KEYS[i];
          return key ? [{ key, what: CHECK_WORDS[finding.check], act: () => confirm(finding) }] : [];
        })
      : [],
  );
  if (isPending) return <p className="text-quiet text-sm">The server reads the original …</p>;
  if (findings.length === 0) return null;
  const effectOf = (finding: Finding): string => {
    const rule = sheet.penalties.find(({ infraction }) => infraction === finding.check);
    return rule ? penaltyWords(rule.penalty, sheet.measure.step) : 'noted';
  };
  return (
    <FindingsList
      findings={findings}
      step={sheet.measure.step}
      onShow={onShow}
      beside={(finding) => {
        const i = open.indexOf(finding);
        const isConfirmed = infractions.includes(finding.check);
        return (
          <span className="flex items-center gap-2">
            <span className="num text-quiet">{effectOf(finding)}</span>
            {toggle && (
              <label className="flex min-h-6.5 items-center gap-1">
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm"
                  aria-label={`confirm: ${CHECK_WORDS[finding.check]}`}
                  checked={isConfirmed}
                  onChange={() => confirm(finding)}
                />
                {KEYS[i] && <kbd className="key">{KEYS[i]}</kbd>}
              </label>
            )}
          </span>
        );
      }}
    />
  );
}
