import type { Fix } from '@lauta/core/custody';

export type ReceiverTrouble = 'refused' | 'absent' | 'searching';

export type ReceiverState = { kind: 'fix'; fix: Fix } | { kind: ReceiverTrouble };

/** Something that tells where the device is, again and again. */
export interface Receiver {
  /** Returns how to stop it. */
  watch: (tell: (state: ReceiverState) => void) => () => void;
}

/** An older fix says little of where a fish was caught, ms. */
const MOST_AGE_MS = 60_000;

/** The device's own receiver (W3C Geolocation). */
export const deviceReceiver: Receiver = {
  watch(tell) {
    if (!('geolocation' in navigator)) {
      tell({ kind: 'absent' });
      return () => undefined;
    }
    tell({ kind: 'searching' });
    const watching = navigator.geolocation.watchPosition(
      ({ coords, timestamp }) =>
        tell({
          kind: 'fix',
          fix: {
            latitude: coords.latitude,
            longitude: coords.longitude,
            accuracyM: coords.accuracy,
            at: new Date(timestamp).toISOString(),
          },
        }),
      (error) => tell({ kind: error.code === error.PERMISSION_DENIED ? 'refused' : 'searching' }),
      { enableHighAccuracy: true, maximumAge: MOST_AGE_MS },
    );
    return () => navigator.geolocation.clearWatch(watching);
  },
};
