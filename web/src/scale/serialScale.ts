import { lineSplitter } from '@lauta/core/scale';
import type { ScaleDevice } from './scaleDevice.ts';

const BAUD = 9600;

export const hasSerial = (): boolean => 'serial' in navigator;

/** A scale on a cable or paired as a serial port (Web Serial, WICG), 9600 baud, 8N1. */
export const serialScale: ScaleDevice = {
  async open(onLine, gone) {
    const port = await navigator.serial.requestPort();
    await port.open({ baudRate: BAUD });
    const { readable, writable } = port;
    if (!readable || !writable) throw new Error('serial port: expected one that reads and writes');
    const reader = readable.getReader();
    const take = lineSplitter(onLine);
    let isClosed = false;
    void (async () => {
      const text = new TextDecoder('ascii');
      try {
        for (;;) {
          const { value, done } = await reader.read();
          if (done) break;
          take(text.decode(value, { stream: true }));
        }
      } catch {
        // Pulled: told below like an end.
      } finally {
        reader.releaseLock();
        await port.close().catch(() => undefined);
        if (!isClosed) gone();
      }
    })();
    return {
      write: async (line) => {
        const writer = writable.getWriter();
        try {
          await writer.write(new TextEncoder().encode(line));
        } finally {
          writer.releaseLock();
        }
      },
      close: () => {
        isClosed = true;
        void reader.cancel().catch(() => undefined);
      },
    };
  },
};
