import { driftOverMere } from '@lauta/sim/position';
import { appNow } from '../clock/appClock.ts';
import { deviceId } from '../door/door.ts';
import type { Receiver } from './receiver.ts';

const EVERY_MS = 1000;

/** The demo's receiver: a boat that drifts over Kestrel Mere, the same boat on the same device. */
export const simulatedReceiver: Receiver = {
  watch(tell) {
    const look = (): void => {
      const now = appNow();
      tell({ kind: 'fix', fix: { ...driftOverMere(deviceId(), now.getTime()), at: now.toISOString() } });
    };
    look();
    const timer = setInterval(look, EVERY_MS);
    return () => clearInterval(timer);
  },
};
