import type { Polygon } from 'geojson';

/** Shore of the invented mere, longitude before latitude; counter-clockwise and closed (RFC 7946). */
const SHORE: number[][] = [
  [19.0535, 51.0525],
  [19.0508, 51.0571],
  [19.0476, 51.0588],
  [19.0452, 51.0626],
  [19.0398, 51.0668],
  [19.0331, 51.0699],
  [19.0247, 51.0712],
  [19.0165, 51.0704],
  [19.0098, 51.0714],
  [19.0021, 51.0695],
  [18.9952, 51.0657],
  [18.9911, 51.0603],
  [18.9878, 51.0561],
  [18.9889, 51.0512],
  [18.9867, 51.0466],
  [18.9922, 51.0411],
  [18.9988, 51.0367],
  [19.0062, 51.0331],
  [19.0151, 51.0337],
  [19.0236, 51.0318],
  [19.0318, 51.0346],
  [19.0389, 51.0371],
  [19.0436, 51.0418],
  [19.0461, 51.0467],
  [19.0512, 51.0489],
  [19.0535, 51.0525],
];

/** Where the reeds grow and fish spawn: nobody fishes there. */
const REED_BAY: number[][] = [
  [19.0535, 51.0525],
  [19.0508, 51.0571],
  [19.0476, 51.0588],
  [19.0441, 51.0549],
  [19.0447, 51.0498],
  [19.0461, 51.0467],
  [19.0512, 51.0489],
  [19.0535, 51.0525],
];

const area = (name: string, use: 'open' | 'closed', ring: number[][]) => ({
  type: 'Feature' as const,
  properties: { name, use },
  geometry: { type: 'Polygon', coordinates: [ring] } satisfies Polygon,
});

/** The waters of the demo event as GeoJSON. */
export const DEMO_WATERS = {
  type: 'FeatureCollection' as const,
  features: [area('Kestrel Mere', 'open', SHORE), area('Reed Bay', 'closed', REED_BAY)],
};

/** In the middle of the closed bay. */
export const IN_REED_BAY = { latitude: 51.0527, longitude: 19.0489 };
