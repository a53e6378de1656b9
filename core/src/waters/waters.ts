import { booleanPointInPolygon } from '@turf/boolean-point-in-polygon';
import { kinks } from '@turf/kinks';
import { pointToPolygonDistance } from '@turf/point-to-polygon-distance';
import type { MultiPolygon, Polygon } from 'geojson';
import type { Position } from '../evidence/index.ts';

/** An area of the event's waters: where one may fish, or may not though it lies within one where one may. */
export interface WaterArea {
  name: string;
  use: 'open' | 'closed';
  /** GeoJSON (RFC 7946): longitude before latitude, WGS 84, closed rings. */
  geometry: Polygon | MultiPolygon;
}

export interface PlaceOnWaters {
  where: 'open' | 'closed' | 'outside';
  /** The area that it lies in; null outside of all. */
  name: string | null;
  /** How far from where one may fish: 0 on open waters, else to the nearest edge, m. */
  awayM: number;
}

/** Where a place lies. Closed areas go before open ones; an edge belongs to its area. */
export function placeOnWaters(areas: readonly WaterArea[], { latitude, longitude }: Position): PlaceOnWaters {
  const at = [longitude, latitude];
  const inside = (area: WaterArea): boolean => booleanPointInPolygon(at, area.geometry);
  const edgeM = ({ geometry }: WaterArea): number =>
    Math.abs(pointToPolygonDistance(at, geometry, { units: 'meters' }));
  const closed = areas.find((area) => area.use === 'closed' && inside(area));
  if (closed) return { where: 'closed', name: closed.name, awayM: edgeM(closed) };
  const open = areas.filter(({ use }) => use === 'open');
  const own = open.find(inside);
  if (own) return { where: 'open', name: own.name, awayM: 0 };
  return { where: 'outside', name: null, awayM: Math.min(...open.map(edgeM)) };
}

export type WatersTrouble = 'no-open-area' | 'ring-not-closed' | 'ring-crosses-itself';

/** What is wrong with areas that have the right shape otherwise; null for none. */
export function watersTrouble(areas: readonly WaterArea[]): { trouble: WatersTrouble; name: string } | null {
  for (const { name, geometry } of areas) {
    const polygons = geometry.type === 'Polygon' ? [geometry.coordinates] : geometry.coordinates;
    for (const ring of polygons.flat()) {
      const [first, last] = [ring[0], ring.at(-1)];
      if (ring.length < 4 || first?.[0] !== last?.[0] || first?.[1] !== last?.[1])
        return { trouble: 'ring-not-closed', name };
    }
    if (kinks(geometry).features.length > 0) return { trouble: 'ring-crosses-itself', name };
  }
  return areas.some(({ use }) => use === 'open') ? null : { trouble: 'no-open-area', name: '' };
}
