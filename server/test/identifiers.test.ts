import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { extractText, getDocumentProxy } from 'unpdf';
import type { CatchView, IdentifierView } from '@lauta/contract';
import { cardSheet } from '../src/event/cardSheet.ts';
import {
  NOON,
  claim,
  done,
  holdEvent,
  openWorld,
  send,
  sendCommand,
  type TestEvent,
  type World,
} from './world.ts';

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
});
afterAll(() => world.close());

const codesFor = async (person = event.angler): Promise<IdentifierView[]> =>
  (await send(world, person, 'get', `/api/events/${event.eventId}/entrants/${event.entrantId}/identifiers`))
    .body as IdentifierView[];
const reveal = (from: string | null) =>
  done(sendCommand(world, event.director, 'codes.reveal', event.eventId, { dayId: event.dayId, from }));

describe('the codes of a day', () => {
  it('are shown from the start where no time is set', async () => {
    expect(await codesFor()).toHaveLength(1);
  });

  it('are hidden from their entrant until the time that the director set, never from the judge', async () => {
    await reveal(new Date(Date.parse(NOON) + 60_000).toISOString());
    expect(await codesFor()).toEqual([]);
    expect(await codesFor(event.judge)).toHaveLength(1);
    await reveal(new Date(Date.parse(NOON) - 1000).toISOString());
    expect(await codesFor()).toHaveLength(1);
    await reveal(null);
  });

  it('that are hidden do not show in an own catch either', async () => {
    const catchId = await claim(world, event);
    const codeFor = async (person = event.angler): Promise<string | null> =>
      ((await send(world, person, 'get', `/api/catches/${catchId}`)).body as CatchView).expectedCode;
    expect(await codeFor()).toMatch(/^[0-9A-Z]{4}$/);
    await reveal(new Date(Date.parse(NOON) + 60_000).toISOString());
    expect(await codeFor()).toBeNull();
    expect(await codeFor(event.judge)).toMatch(/^[0-9A-Z]{4}$/);
    await reveal(null);
  });

  it('of a day of another event cannot be timed', async () => {
    const other = await holdEvent(world);
    const sent = await sendCommand(world, event.director, 'codes.reveal', event.eventId, { dayId: other.dayId, from: null }); // prettier-ignore
    expect(sent.status).toBe(404);
  });
});

describe('the sheet of cards', () => {
  const PT = 72 / 25.4;
  const card = (n: number) => ({ eventCode: 'K7Q4', entrantNumber: 100 + n, code: `A${n % 10}KX` });

  it('has ten cards to an A4 page, with code and entrant on each', async () => {
    const pdf = await getDocumentProxy(
      new Uint8Array(await cardSheet([...Array(11).keys()].map(card), 'Cards')),
    );
    expect(pdf.numPages).toBe(2);
    const page = await pdf.getPage(1);
    const { width, height } = page.getViewport({ scale: 1 });
    // ISO 216: A4 is 210 × 297 mm.
    expect(width / PT).toBeCloseTo(210, 0);
    expect(height / PT).toBeCloseTo(297, 0);
    const { text } = await extractText(pdf, { mergePages: true });
    for (const n of [0, 5, 10]) expect(text).toContain(card(n).code);
    expect(text).toContain('110');
  });

  it('writes the code 12 mm tall on cards of 85.6 × 54 mm (ISO/IEC 7810, ID-1)', async () => {
    const pdf = await getDocumentProxy(new Uint8Array(await cardSheet([card(0), card(1), card(2)], 'Cards')));
    const { items } = await (await pdf.getPage(1)).getTextContent();
    const at = (text: string) => {
      const item = items.find((one) => 'str' in one && one.str === text);
      if (!item || !('transform' in item)) throw new Error(`text: expected ${text} on the page`);
      const [, , , sizePt, x, y] = item.transform as number[];
      return { capMm: ((sizePt ?? 0) * 0.718) / PT, xMm: (x ?? 0) / PT, yMm: (y ?? 0) / PT };
    };
    const [first, second, third] = [card(0), card(1), card(2)].map(({ code }) => at(code));
    expect(first?.capMm).toBeCloseTo(12, 1);
    expect((second?.xMm ?? 0) - (first?.xMm ?? 0)).toBeCloseTo(85.6, 1);
    expect((first?.yMm ?? 0) - (third?.yMm ?? 0)).toBeCloseTo(54, 1);
    expect(at('100').capMm).toBeCloseTo(6, 1);
  });

  it('is a page that says so when there is none', async () => {
    const pdf = await getDocumentProxy(new Uint8Array(await cardSheet([], 'Cards')));
    expect((await extractText(pdf, { mergePages: true })).text).toContain('No codes yet.');
  });
});
