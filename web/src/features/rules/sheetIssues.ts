import { ruleSheetSchema } from '@lauta/contract';
import { keptRules, type RuleSheet } from '@lauta/core/rules';

/** What is wrong, by the field's path (`species.0.name`), in words for who fills the form in. */
export type SheetIssues = ReadonlyMap<string, string>;

/** The first that fits a path tells; whatever fits none keeps the schema's own message. */
const ISSUE_WORDS: readonly (readonly [RegExp, string])[] = [
  [/^title$/, 'A title of 1 to 120 letters.'],
  [/^bagLimit$/, 'From 1 to 50 fish.'],
  [/^airSeconds$/, 'From 1 to 600 seconds, or empty.'],
  [/^species[.]\d+[.](id|name)$/, 'A name with letters or figures.'],
  [/^species[.]\d+[.]limit$/, 'From 0 to 50, or empty.'],
  [/^species[.]\d+[.]slot[.]allowed$/, 'From 0 to 50.'],
  [/^species[.]\d+[.]slot/, 'A slot ends above where it begins.'],
  [/^species[.]\d+[.](minimumSteps|minimumLength)/, 'A length, or empty.'],
  [/^species$/, 'Each species stands here once.'],
  [/^boards/, 'Approve at least one board.'],
  [/^weighIn[.]late[.](graceMinutes|refusedAfterMinutes)$/, 'From 0 to 600 minutes.'],
  [/^weighIn[.]/, 'A weight from 0 up.'],
];

/** The sheet as it would be published, or what is wrong with it and where. */
export function checkSheet(
  sheet: RuleSheet,
): { ok: true; sheet: RuleSheet } | { ok: false; issues: SheetIssues } {
  const checked = ruleSheetSchema.safeParse(keptRules(sheet));
  if (checked.success) return { ok: true, sheet: checked.data };
  const issues = new Map<string, string>();
  for (const { path, message } of checked.error.issues) {
    const at = path.join('.');
    if (!issues.has(at)) issues.set(at, ISSUE_WORDS.find(([where]) => where.test(at))?.[1] ?? message);
  }
  return { ok: false, issues };
}

/** What is wrong at a path or anywhere beneath it. */
export function issueAt(issues: SheetIssues, path: string): string | undefined {
  for (const [at, words] of issues) if (at === path || at.startsWith(`${path}.`)) return words;
  return undefined;
}
