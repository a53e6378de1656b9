import { beforeEach, describe, expect, it, vi } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { recordSpecimenSchema } from '@lauta/contract';
import { G_PER_OUNCE } from '@lauta/core/units';
import { SPECIMEN_CARE, WOUND_PLACES } from '@lauta/core/specimen';
import { nextEntry, isDoneAlready } from '../../outbox/nextEntry.ts';
import type { OutboxEntry } from '../../outbox/outboxStore.ts';
import { freshDraft } from './specimenDraft.ts';
import { CARE_WORDS, WOUND_WORDS, findingWords } from '@lauta/words/specimen';

const kept = new Map<string, string>();
beforeEach(() => {
  kept.clear();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  });
});

const record = (change: object = {}) => ({
  specimenId: uuidv7(),
  entrantId: '0190c1d2-0000-7000-8000-000000000002',
  weighedAt: '2026-06-14T09:30:00.000Z',
  clockOffsetMs: null,
  weighedHow: 'typed',
  specimen: {
    speciesId: 'walleye',
    lengthMm: 700,
    weighing: { tare: { kind: 'zeroed' }, grossG: 4000, emptyAfterG: -5, divisionG: 10 },
    care: ['mat-wet', 'sling-wet'],
    wounds: [{ place: 'mouth', isDressed: false }],
    photographs: [],
  },
  note: '',
  corrects: null,
  ...change,
});

describe('what a device keeps of a specimen', () => {
  it('begins with the scale’s step that was chosen last, or with the usual one', () => {
    const id = uuidv7();
    expect(freshDraft(id, G_PER_OUNCE)).toMatchObject({
      specimenId: id,
      divisionG: G_PER_OUNCE,
      grossG: null,
    });
    kept.set('lauta-bank-scale-step', '50');
    expect(freshDraft(id, G_PER_OUNCE).divisionG).toBe(50);
    kept.set('lauta-bank-scale-step', 'fifty');
    expect(freshDraft(id, G_PER_OUNCE).divisionG).toBe(G_PER_OUNCE);
  });

  it('is called by no id twice', () => {
    const id = uuidv7();
    expect(freshDraft(id, 10).commandId).not.toBe(freshDraft(id, 10).commandId);
  });
});

describe('words of a specimen', () => {
  it('name every step and every wound', () => {
    expect(SPECIMEN_CARE.filter((one) => !CARE_WORDS[one])).toEqual([]);
    expect(WOUND_PLACES.filter((one) => !WOUND_WORDS[one])).toEqual([]);
  });

  it('tell each finding with its figures, in the event’s unit', () => {
    expect(findingWords({ kind: 'zero-moved', movedG: -2 * G_PER_OUNCE }, 'lb-oz').words).toBe(
      'the empty scale moved by 2.0 oz meanwhile',
    );
    expect(findingWords({ kind: 'light', lightestG: 3200, heaviestG: 8600 }, 'kg').words).toMatch(
      /^light for its length: .* 3\.2.* to 8\.6/,
    );
    const long = findingWords({ kind: 'long-in-air', seconds: 41.6, limitSeconds: 30 }, 'kg');
    expect([long.tone, long.words]).toEqual(['fault', '42 s out of the water, of 30 s']);
    for (const kind of ['sling-dry', 'zero-not-checked', 'no-photograph', 'return-not-told'] as const)
      expect(findingWords({ kind }, 'kg').tone).toBe('look');
  });
});

describe('the record that is sent', () => {
  it('is taken as it is made', () => {
    expect(recordSpecimenSchema.safeParse(record()).error).toBeUndefined();
  });

  const specimen = record().specimen;
  const weighing = specimen.weighing;
  it.each<[string, object]>([
    ['a gross weight of nothing', { specimen: { ...specimen, weighing: { ...weighing, grossG: 0 } } }],
    ['a scale without steps', { specimen: { ...specimen, weighing: { ...weighing, divisionG: 0 } } }],
    ['a sling under nothing', { specimen: { ...specimen, weighing: { ...weighing, tare: { kind: 'noted', slingG: -1, standG: 0 } } } }], // prettier-ignore
    ['a step told twice', { specimen: { ...specimen, care: ['mat-wet', 'mat-wet'] } }],
    ['an unknown wound', { specimen: { ...specimen, wounds: [{ place: 'soul', isDressed: true }] } }],
    ['five photographs', { specimen: { ...specimen, photographs: Array.from({ length: 5 }, () => ({ photographId: uuidv7() })) } }], // prettier-ignore
    ['a correction without a reason', { corrects: { specimenId: uuidv7(), reason: ' ' } }],
    ['a field that nobody knows', { secret: 1 }],
  ])('is refused with %s', (_, change) => {
    expect(recordSpecimenSchema.safeParse(record(change)).success).toBe(false);
  });
});

describe('in the outbox', () => {
  const entry = (order: number, byteLength: number): OutboxEntry =>
    ({
      accountId: 'a',
      order,
      files: byteLength > 0 ? [{ fileId: uuidv7(), sha256: '', mediaType: 'image/jpeg', byteLength }] : [],
      refused: null,
      command: { kind: 'specimen.record', commandId: uuidv7(), body: record() },
    }) as unknown as OutboxEntry;

  it('a correction without photographs does not overtake its record', () => {
    const [first, second] = [entry(1, 5_000_000), entry(2, 0)];
    expect(nextEntry([second, first], 'a')).toBe(first);
    expect(nextEntry([second], 'a')).toBe(second);
  });

  it('one that is there already was sent before', () => {
    const problem = (type: string) => ({ type, title: '', status: 409 });
    expect(isDoneAlready(entry(1, 0), problem('entry-exists'))).toBe(true);
    expect(isDoneAlready(entry(1, 0), problem('specimen-corrected'))).toBe(false);
  });
});
