import type { Request, Response } from 'express';
import { setTokenCookie, tokenOf } from '../http/cookies.ts';
import type { Lauta } from '../context/lauta.ts';
import { browserName } from './browserName.ts';
import { tokenSha256, type SignInFrom, type Token } from '../access/signIn.ts';

export const fromOf = (request: Request): SignInFrom => ({ browser: browserName(request.get('user-agent')) });

/** Signing in over a sign-in ends that one: a browser has one at a time. */
export async function replaceToken(
  lauta: Lauta,
  request: Request,
  response: Response,
  token: Pick<Token, 'token' | 'expiresAt'>,
): Promise<void> {
  const former = tokenOf(request);
  if (former) await lauta.storage.read.people.removeSignIn(tokenSha256(former));
  setTokenCookie(request, response, token);
}
