import sharp from 'sharp';
import { demoId } from '@lauta/sim/demo';
import { drawPortrait } from '@lauta/sim/portrait';
import type { Lauta } from '../context/lauta.ts';
import { DEMO_EVENT_ID, sendAs } from './sendAs.ts';
import { uploadAs } from './uploadAs.ts';
import type { AccountId, EntrantId } from '@lauta/core/ids';

/** Ten past five on the mere, before lines-in of the first day. */
const WEIGHED_MS = Date.parse('2026-06-13T03:10:00Z');
const MINUTE_MS = 60_000;
/** A walleye of 9 lb 6 oz and of 28¼ in, in a wet sling that the scale was not set to zero with. */
const FISH_G = 4252;
const LENGTH_MM = 717.55;
const SLING_G = 595;
const OUNCE_G = 28.349523125;
const SEED = 5;

/** A large fish that the demo's angler weighed on the bank. */
export async function loadSpecimen(
  lauta: Lauta,
  { accountId, entrantId }: { accountId: AccountId; entrantId: EntrantId },
): Promise<void> {
  const specimenId = demoId('specimen', WEIGHED_MS);
  if (await lauta.storage.read.specimens.find(specimenId)) return;
  const { raster } = drawPortrait(SEED, { kind: 'held', fault: null, look: 'walleye' });
  const jpeg = await sharp(raster.data, {
    raw: { width: raster.widthPx, height: raster.heightPx, channels: 4 },
  })
    .jpeg({ quality: 88 })
    .toBuffer();
  const photographId = demoId('photograph of the specimen', WEIGHED_MS);
  const sentMs = WEIGHED_MS + 6 * MINUTE_MS;
  await uploadAs(lauta, accountId, photographId, jpeg, sentMs);
  const after = (seconds: number): number => WEIGHED_MS + 1000 * seconds;
  await sendAs(DEMO_EVENT_ID)(lauta, accountId, 'specimen', sentMs, 'specimen.record', {
    specimenId,
    entrantId,
    weighedAt: new Date(WEIGHED_MS).toISOString(),
    clockOffsetMs: null,
    weighedHow: 'typed',
    specimen: {
      speciesId: 'walleye',
      lengthMm: LENGTH_MM,
      weighing: {
        tare: { kind: 'noted', slingG: SLING_G, standG: 0 },
        grossG: FISH_G + SLING_G,
        emptyAfterG: SLING_G + OUNCE_G / 2,
        divisionG: OUNCE_G / 2,
      },
      care: ['mat-wet', 'hook-out-in-net', 'sling-wet', 'held-low', 'sling-to-water'],
      wounds: [{ place: 'hook-hole', isDressed: true }],
      photographs: [{ photographId }],
      handling: {
        events: [
          { step: 'hooked', atMs: after(-250) },
          { step: 'netted', atMs: after(-110) },
          { step: 'lifted', atMs: after(-14) },
          { step: 'returned', atMs: after(9) },
          { step: 'released', atMs: after(95) },
        ],
        airLimitSeconds: 30,
        guessedMassG: null,
        waterCelsius: 17,
        airCelsius: 12,
        hookPlace: 'lip',
        bleeds: false,
        signs: { upright: 'yes', gills: 'yes', 'tail-grab': 'yes' },
      },
    },
    note: '',
    corrects: null,
  });
}
