import { circle, circleMarker, control, geoJSON, map, type LayerGroup, layerGroup, type Map } from 'leaflet';
import { useEffect, useRef } from 'react';
import type { Waters } from '@lauta/contract';

export interface MapPlace {
  latitude: number;
  longitude: number;
  accuracyM: number;
  name: string;
}

const OPEN = 'stroke-secondary fill-fish [fill-opacity:.55] [stroke-width:1.5]';
const CLOSED = 'stroke-error fill-error [fill-opacity:.18] [stroke-width:2] [stroke-dasharray:6_4]';
const ACCURACY = 'fill-base-content stroke-none [fill-opacity:.2]';
const PLACE = 'fill-base-content stroke-base-100 [fill-opacity:1] [stroke-width:2]';

/** Text as text: names come from people, and a tooltip's string would be read as HTML. */
function plain(text: string): HTMLElement {
  const element = document.createElement('span');
  element.textContent = text;
  return element;
}

function drawWaters(waters: Waters): LayerGroup {
  return layerGroup(
    waters.features.map((feature) => {
      const isClosed = feature.properties.use === 'closed';
      const name = feature.properties.name || 'unnamed';
      return geoJSON(feature as GeoJSON.Feature, {
        style: { className: isClosed ? CLOSED : OPEN },
      }).bindTooltip(plain(isClosed ? `${name}, closed` : name), { sticky: true });
    }),
  );
}

function drawPlaces(places: readonly MapPlace[]): LayerGroup {
  return layerGroup(
    places.flatMap(({ latitude, longitude, accuracyM, name }) => [
      circle([latitude, longitude], { radius: accuracyM, className: ACCURACY }),
      circleMarker([latitude, longitude], { radius: 7, className: PLACE }).bindTooltip(plain(name), {
        permanent: true,
        direction: 'top',
        offset: [0, -8],
      }),
    ]),
  );
}

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
  const frame = useRef<HTMLDivElement>(null);
  const drawn = useRef<Map | null>(null);
  useEffect(() => {
    if (!frame.current) return;
    // Places are drawn anew whenever something of the catch is heard: names that fade out would stand there twice.
    const made = map(frame.current, { attributionControl: false, zoomSnap: 0.25, fadeAnimation: false });
    made.fitBounds(
      geoJSON(waters as GeoJSON.FeatureCollection)
        .getBounds()
        .pad(0.08),
    );
    control.scale({ imperial: false }).addTo(made);
    drawWaters(waters).addTo(made);
    drawn.current = made;
    return () => {
      drawn.current = null;
      made.remove();
    };
  }, [waters]);
  useEffect(() => {
    const shown = drawPlaces(places);
    if (drawn.current) shown.addTo(drawn.current);
    return () => void shown.remove();
  }, [waters, places]);
  return <div ref={frame} className={`bg-base-200! border-base-300 w-full border ${className}`} />;
}
