import { useCallback, useEffect, useRef, useState } from 'react';
import {
  formatScaleLine,
  parseScaleLine,
  scaleState,
  type ScaleSample,
  type ScaleState,
} from '@lauta/core/scale';
import type { OpenScale, ScaleDevice } from './scaleDevice.ts';

export interface ScaleShown {
  /** The last figure, g; null before the first line. */
  massG: number | null;
  divisionG: number;
  batteryPercent: number;
  state: ScaleState | { kind: 'overload' };
}

export type ScaleLink = 'closed' | 'opening' | 'open' | 'gone' | 'refused';

/** Readings older than this don't matter to what hangs now, ms. */
const KEPT_MS = 30_000;

/** Follows a scale as long as it is open. */
export function useScale() {
  const [link, setLink] = useState<ScaleLink>('closed');
  const [shown, setShown] = useState<ScaleShown | null>(null);
  const opened = useRef<OpenScale | null>(null);
  const samples = useRef<ScaleSample[]>([]);
  const close = useCallback(() => {
    opened.current?.close();
    opened.current = null;
    samples.current = [];
    setShown(null);
    setLink('closed');
  }, []);
  useEffect(() => () => opened.current?.close(), []);
  const open = async (device: ScaleDevice): Promise<void> => {
    close();
    setLink('opening');
    try {
      opened.current = await device.open(
        (text) => {
          const line = parseScaleLine(text);
          if (line?.kind === 'overload') {
            samples.current = [];
            setShown((former) => ({ massG: null, divisionG: former?.divisionG ?? 1, batteryPercent: former?.batteryPercent ?? 0, state: { kind: 'overload' } })); // prettier-ignore
          }
          if (line?.kind !== 'reading') return;
          // A scale that was switched on anew counts from nothing again.
          const former = samples.current.filter(
            ({ atMs }) => atMs <= line.atMs && atMs > line.atMs - KEPT_MS,
          );
          samples.current = [...former, { atMs: line.atMs, massG: line.massG }];
          const { massG, divisionG, batteryPercent } = line;
          setShown({ massG, divisionG, batteryPercent, state: scaleState(samples.current, divisionG) });
        },
        () => {
          opened.current = null;
          setLink('gone');
        },
      );
      setLink('open');
    } catch {
      setLink('refused');
    }
  };
  const zero = (): void =>
    void opened.current?.write(formatScaleLine({ kind: 'zero' })).catch(() => undefined);
  return { link, shown, open, close, zero };
}
