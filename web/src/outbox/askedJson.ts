import { getJson } from '../door/ask.ts';

/** What the server answered, with when it was asked, ms since 1970: what this device had sent by then is in it. */
export type Asked<T> = T & { askedAtMs?: number };

export async function askedJson<T extends object>(path: string, signal: AbortSignal): Promise<Asked<T>> {
  const askedAtMs = Date.now();
  return { ...(await getJson<T>(path, signal)), askedAtMs };
}
