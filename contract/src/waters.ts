import { z } from 'zod';
import type { WaterArea } from '@lauta/core/waters';

/** Longitude, latitude and perhaps an altitude (RFC 7946, 3.1.1). */
const place = z
  .array(z.number())
  .min(2)
  .max(3)
  .refine(([lon = 999, lat = 999]) => Math.abs(lon) <= 180 && Math.abs(lat) <= 90, {
    message: 'longitude −180 to 180, then latitude −90 to 90',
  });
const MOST_PLACES = 5000;
const ring = z.array(place).min(4, 'a ring has four places, the last as the first').max(MOST_PLACES);
const polygon = z.array(ring).min(1).max(50);

export const watersSchema = z
  .object({
    type: z.literal('FeatureCollection'),
    features: z
      .array(
        z.object({
          type: z.literal('Feature'),
          geometry: z.discriminatedUnion('type', [
            z.object({ type: z.literal('Polygon'), coordinates: polygon }),
            z.object({ type: z.literal('MultiPolygon'), coordinates: z.array(polygon).min(1).max(50) }),
          ]),
          properties: z
            .object({
              name: z.string().trim().max(60).catch(''),
              /** Whatever a drawing program calls it: only `closed` closes. */
              use: z.enum(['open', 'closed']).catch('open'),
            })
            .nullable()
            .transform((properties) => properties ?? { name: '', use: 'open' as const }),
        }),
      )
      .min(1, 'no area')
      .max(50),
  })
  .refine((waters) => JSON.stringify(waters).length <= 200_000, { message: 'more than 200 kB' });
export type Waters = z.infer<typeof watersSchema>;

export const publishWatersSchema = z.strictObject({ waters: watersSchema });

export interface WatersView {
  version: number;
  sha256: string;
  publishedAt: string;
  waters: Waters;
}

/** The areas as the core takes them. */
export function areasOf(waters: Waters): WaterArea[] {
  return waters.features.map(({ geometry, properties }) => ({
    name: properties.name,
    use: properties.use,
    geometry,
  }));
}
