import { statfs } from 'node:fs/promises';

/** How much room there is where the database writes. */
export interface DiskWatch {
  /** Null where nobody knows. */
  freeBytes(): number | null;
  /** Photographs are refused: what is left is kept for all that is small. */
  isShort(): boolean;
  /** Nothing at all is written: a database that runs out of room ends as a whole. */
  isFull(): boolean;
  close(): void;
}

const LOOK_MS = 2000;
/** The least that is kept free for the database itself. */
const LAST_BYTES = 96 * 1024 * 1024;

export interface DiskOptions {
  /** Where the database writes; null where that is another machine. */
  dir: string | null;
  reserveBytes: number;
  /** Told when room runs short and when there is some again. */
  tell?: (short: boolean, freeBytes: number) => void;
}

/** Looks every two seconds: at a chunk of half a megabyte a request no reserve is used up between two looks. */
export async function openDiskWatch({ dir, reserveBytes, tell }: DiskOptions): Promise<DiskWatch> {
  let free: number | null = null;
  let wasShort = false;
  const isShort = (): boolean => free !== null && free < reserveBytes;
  const look = async (): Promise<void> => {
    if (dir === null) return;
    try {
      const { bavail, bsize } = await statfs(dir);
      free = bavail * bsize;
    } catch {
      free = null;
    }
    if (isShort() !== wasShort) {
      wasShort = !wasShort;
      tell?.(wasShort, free ?? 0);
    }
  };
  await look();
  const timer = setInterval(() => void look(), LOOK_MS);
  timer.unref();
  return {
    freeBytes: () => free,
    isShort,
    isFull: () => free !== null && free < Math.min(LAST_BYTES, reserveBytes),
    close: () => clearInterval(timer),
  };
}

/** Where nobody looks there is always room. */
export const ENDLESS_DISK: DiskWatch = {
  freeBytes: () => null,
  isShort: () => false,
  isFull: () => false,
  close: () => undefined,
};
