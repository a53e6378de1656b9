/** A catch of twelve frames of a phone's usual size, bytes. */
const CATCH_BYTES = 12 * 4e6;

/** For how many more catches this browser has room; null where it does not tell. */
export async function roomForCatches(): Promise<number | null> {
  try {
    const { quota = 0, usage = 0 } = await navigator.storage.estimate();
    return Math.max(0, Math.floor((quota - usage) / CATCH_BYTES));
  } catch {
    return null;
  }
}
