import { SCALE_KINDS, parseScaleLine } from '@lauta/core/scale';
import { rollDice } from '@lauta/sim/camera';
import { ScaleStream } from '@lauta/sim/scale';
import type { ScaleDevice } from './scaleDevice.ts';

const EVERY_MS = 100;
/** Lines of a page that slept are not sent again. */
const MOST_LATE = 50;

/** What hangs on the demo's scale: whoever plays with it chooses the weight. */
export interface SimulatedScale extends ScaleDevice {
  hang: (trueG: number, isRestless: boolean) => void;
  takeOff: () => void;
}

/** The demo's hanging scale, on the same lines as a real one. */
export function simulatedScale(): SimulatedScale {
  const seed = crypto.getRandomValues(new Uint32Array(1))[0] ?? 1;
  const dice = rollDice(seed);
  const stream = new ScaleStream({ kind: SCALE_KINDS.usual, dice, warmsPerHour: 4 });
  return {
    hang: (trueG, isRestless) =>
      stream.hang({
        trueG,
        swing: isRestless ? 0.3 : dice.between(0.04, 0.1),
        calmsSeconds: isRestless ? 2 : dice.between(0.4, 0.9),
        struggles: isRestless,
      }),
    takeOff: () => stream.takeOff(),
    open: (onLine) => {
      const begun = performance.now();
      let sent = 0;
      // A busy page is late with its timers; a scale is not: what was due meanwhile is sent in one go.
      const timer = setInterval(() => {
        const due = Math.floor((performance.now() - begun) / EVERY_MS);
        sent = Math.max(sent, due - MOST_LATE);
        for (; sent < due; sent++) onLine(stream.next());
      }, EVERY_MS);
      return Promise.resolve({
        write: (line) => {
          if (parseScaleLine(line)?.kind === 'zero') stream.zero();
          return Promise.resolve();
        },
        close: () => clearInterval(timer),
      });
    },
  };
}
