import { createHmac, timingSafeEqual } from 'node:crypto';
import type { CookieOptions, Request, Response } from 'express';
import type { Token } from '../access/signIn.ts';
import type { AccountId } from '@lauta/core/ids';

/** Over TLS no neighbouring host or port can plant a cookie of this prefix (RFC 6265bis, 4.1.3.2). */
const HOST_ONLY = '__Host-';
const SIGN_IN = 'lauta_sign_in';
const KNOWN = 'lauta_known';
const KNOWN_MS = 400 * 86_400_000;

const nameOf = (request: Request, name: string): string => (request.secure ? HOST_ONLY + name : name);

/** A cookie's value; null where there is none, and where several of one name disagree: then one of them was planted. */
function cookie(request: Request, name: string): string | null {
  const values = new Set<string>();
  for (const pair of (request.headers.cookie ?? '').split(';')) {
    const at = pair.indexOf('=');
    if (at > 0 && pair.slice(0, at).trim() === nameOf(request, name)) values.add(pair.slice(at + 1).trim());
  }
  const [value, other] = values;
  return value && other === undefined ? value : null;
}

export function tokenOf(request: Request): string | null {
  return cookie(request, SIGN_IN);
}

function options(request: Request): CookieOptions {
  return { httpOnly: true, sameSite: 'lax', path: '/', secure: request.secure };
}

export function setTokenCookie(
  request: Request,
  response: Response,
  { token, expiresAt }: Pick<Token, 'token' | 'expiresAt'>,
): void {
  response.cookie(nameOf(request, SIGN_IN), token, { ...options(request), expires: expiresAt });
}

export function clearTokenCookie(request: Request, response: Response): void {
  response.clearCookie(nameOf(request, SIGN_IN), options(request));
  // Nothing that was seen while signed in stays in a browser that others use.
  response.setHeader('Clear-Site-Data', '"cache"');
}

const markOf = (secret: string, accountId: AccountId): string =>
  createHmac('sha256', secret).update(`known ${accountId}`).digest('base64url');

/** Remembers that an account has signed in on this browser: strangers' wrong guesses do not keep its owner out here. */
export function setKnownCookie(
  request: Request,
  response: Response,
  secret: string,
  accountId: AccountId,
): void {
  const expires = new Date(Date.now() + KNOWN_MS);
  response.cookie(nameOf(request, KNOWN), markOf(secret, accountId), { ...options(request), expires });
}

export function isKnownBrowser(request: Request, secret: string, accountId: AccountId): boolean {
  const told = Buffer.from(cookie(request, KNOWN) ?? '');
  const expected = Buffer.from(markOf(secret, accountId));
  return told.length === expected.length && timingSafeEqual(told, expected);
}
