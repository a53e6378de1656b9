import { readRuleSheet } from '@lauta/contract';
import type { RuleBook, RuleSheet } from '@lauta/core/rules';
import type { Stores } from '../storage/storage.ts';
import type { PublishedSheet } from './ruleStore.ts';
import type { EventId } from '@lauta/core/ids';

export interface PublishedBook extends RuleBook {
  published: { version: number; publishedAtMs: number }[];
  currentVersion: number;
}

export function readPublished(sheet: PublishedSheet): RuleSheet {
  return readRuleSheet(JSON.parse(Buffer.from(sheet.bytes).toString('utf8')));
}

/** Every version of an event's sheet, read and lifted; null while none is published. */
export async function loadRuleBook(stores: Stores, eventId: EventId): Promise<PublishedBook | null> {
  const sheets = await stores.rules.versions(eventId);
  const last = sheets.at(-1);
  if (!last) return null;
  const versions = new Map(sheets.map((sheet) => [sheet.version, readPublished(sheet)]));
  return {
    current: versions.get(last.version) as RuleSheet,
    currentVersion: last.version,
    versions,
    published: sheets.map(({ version, publishedAt }) => ({ version, publishedAtMs: publishedAt.getTime() })),
  };
}
