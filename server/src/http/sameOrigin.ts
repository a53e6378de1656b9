import type { RequestHandler } from 'express';
import { sendProblem } from './problem.ts';

const READING = new Set(['GET', 'HEAD', 'OPTIONS']);

/** A write must come from a page of this very origin: browsers say so in headers that a page cannot forge. */
export const sameOrigin: RequestHandler = (request, response, next) => {
  if (READING.has(request.method) || isSameOrigin(request.headers, request.protocol)) next();
  else sendProblem(response, 'wrong-origin');
};

function isSameOrigin(
  headers: { origin?: string | undefined; host?: string | undefined; 'sec-fetch-site'?: unknown },
  protocol: string,
): boolean {
  const site = headers['sec-fetch-site'];
  if (site !== undefined && site !== 'same-origin') return false;
  if (headers.origin === undefined) return site === 'same-origin';
  return headers.origin === `${protocol}://${headers.host ?? ''}`;
}
