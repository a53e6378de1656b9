import { RULE_SHEET_VERSION } from './ruleSheet.ts';

type Sheet = Record<string, unknown>;

/** From a schema version to the next. Every landed version keeps its entry, so that stored sheets stay readable. */
const UPCASTERS: Record<number, (sheet: Sheet) => Sheet> = {};

/**
 * Lifts a stored sheet of any landed version to the present one; its shape is checked by the caller.
 * @throws RangeError for a version that this program does not know
 */
export function upcastRuleSheet(stored: unknown): Sheet {
  if (typeof stored !== 'object' || stored === null) throw new RangeError('rule sheet: expected an object');
  let sheet = stored as Sheet;
  for (;;) {
    const version = sheet['schemaVersion'];
    if (version === RULE_SHEET_VERSION) return sheet;
    const upcast = typeof version === 'number' ? UPCASTERS[version] : undefined;
    if (!upcast)
      throw new RangeError(`schemaVersion: expected 1 to ${RULE_SHEET_VERSION}, got ${String(version)}`);
    sheet = upcast(sheet);
  }
}
