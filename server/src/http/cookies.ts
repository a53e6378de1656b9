import type { CookieOptions, Request, Response } from 'express';
import type { Token } from '../people/signIn.ts';

const NAME = 'lauta_sign_in';

export function tokenOf(request: Request): string | null {
  for (const pair of (request.headers.cookie ?? '').split(';')) {
    const [name, value] = pair.trim().split('=');
    if (name === NAME && value) return value;
  }
  return null;
}

function options(request: Request): CookieOptions {
  return { httpOnly: true, sameSite: 'lax', path: '/', secure: request.secure };
}

export function setTokenCookie(request: Request, response: Response, { token, expiresAt }: Token): void {
  response.cookie(NAME, token, { ...options(request), expires: expiresAt });
}

export function clearTokenCookie(request: Request, response: Response): void {
  response.clearCookie(NAME, options(request));
}
