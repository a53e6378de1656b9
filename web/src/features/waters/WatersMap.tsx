import { geoJSON } from 'leaflet';
import { Circle, CircleMarker, GeoJSON, MapContainer, ScaleControl, Tooltip } from 'react-leaflet';
import { useMemo } from 'react';
import type { Waters } from '@lauta/contract';

export interface MapPlace {
  latitude: number;
  longitude: number;
  accuracyM: number;
  name: string;
}

const OPEN = 'stroke-secondary fill-fish [fill-opacity:.55] [stroke-width:1.5]';
const CLOSED = 'stroke-error fill-error [fill-opacity:.18] [stroke-width:2] [stroke-dasharray:6_4]';

/** The event's waters, drawn without a map beneath: open areas, closed ones, and places on them. */
export default function WatersMap({
  waters,
  places,
  className,
}: {
  waters: Waters;
  places: readonly MapPlace[];
  className: string;
}) {
  const bounds = useMemo(
    () =>
      geoJSON(waters as GeoJSON.FeatureCollection)
        .getBounds()
        .pad(0.08),
    [waters],
  );
  return (
    <MapContainer
      // Another water is another map.
      key={bounds.toBBoxString()}
      bounds={bounds}
      attributionControl={false}
      zoomSnap={0.25}
      className={`bg-base-200! border-base-300 w-full border ${className}`}
    >
      {waters.features.map((feature, i) => (
        <GeoJSON
          key={`${i} ${feature.properties.use}`}
          data={feature as GeoJSON.Feature}
          style={{ className: feature.properties.use === 'open' ? OPEN : CLOSED }}
        >
          <Tooltip sticky>
            {feature.properties.name || 'unnamed'}
            {feature.properties.use === 'closed' && ', closed'}
          </Tooltip>
        </GeoJSON>
      ))}
      {places.map(({ latitude, longitude, accuracyM, name }) => (
        <Circle
          key={`${name} accuracy`}
          center={[latitude, longitude]}
          radius={accuracyM}
          className="fill-base-content stroke-none [fill-opacity:.2]"
        />
      ))}
      {places.map(({ latitude, longitude, name }) => (
        <CircleMarker
          key={name}
          center={[latitude, longitude]}
          radius={7}
          className="fill-base-content stroke-base-100 [fill-opacity:1] [stroke-width:2]"
        >
          <Tooltip permanent direction="top" offset={[0, -8]}>
            {name}
          </Tooltip>
        </CircleMarker>
      ))}
      <ScaleControl imperial={false} />
    </MapContainer>
  );
}
