import type { RuleSheet } from '@lauta/core/rules';

/** Changes a part of the sheet in the form. */
export type Change = (part: Partial<RuleSheet>) => void;
