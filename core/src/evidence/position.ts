/** A place on Earth, degrees (WGS 84). */
export interface Position {
  latitude: number;
  longitude: number;
}

const EARTH_RADIUS_M = 6_371_008.8;

/** Distance on the sphere of Earth's mean radius (IUGG), by haversines (Sinnott 1984), m. */
export function distanceM(a: Position, b: Position): number {
  const rad = Math.PI / 180;
  const [dLat, dLon] = [(b.latitude - a.latitude) * rad, (b.longitude - a.longitude) * rad];
  const h =
    Math.sin(dLat / 2) ** 2 +
    Math.cos(a.latitude * rad) * Math.cos(b.latitude * rad) * Math.sin(dLon / 2) ** 2;
  return 2 * EARTH_RADIUS_M * Math.asin(Math.min(1, Math.sqrt(h)));
}
