import rateLimit, { ipKeyGenerator } from 'express-rate-limit';
import express, { type Request, type RequestHandler } from 'express';
import { normalEmail } from '@lauta/contract';
import { isKnownBrowser } from '../http/cookies.ts';
import { sendProblem } from '../http/problem.ts';
import type { Lauta } from '../context/lauta.ts';

export interface SignInLimits {
  /** Failed tries in a quarter of an hour, for one address on the network and for one account. */
  triesPerAddress: number;
  triesPerAccount: number;
}

export interface SignInLimiters {
  byAddress: RequestHandler;
  byAccount: RequestHandler[];
}

/** A small body, read before the limiters look into it. */
export const jsonBody = (): RequestHandler => express.json({ limit: '16kb' });

const QUARTER_HOUR_MS = 15 * 60_000;

/** Strangers from everywhere together may try so many times more than one of them. */
const ALL_STRANGERS = 10;

/**
 * Only failures count, so that a team behind one address is not locked out by signing in. An account's tries are counted
 * for each address on the network, and for a browser that signed in before by itself: whoever guesses elsewhere keeps
 * the owner out of none of the own devices.
 */
export function signInLimiters(
  lauta: Lauta,
  { triesPerAddress, triesPerAccount }: SignInLimits,
): SignInLimiters {
  const limiter = (
    limit: number,
    keyGenerator: (request: Request) => string | Promise<string>,
    skip: (request: Request) => boolean | Promise<boolean> = () => false,
  ): RequestHandler =>
    rateLimit({
      windowMs: QUARTER_HOUR_MS,
      limit,
      skip,
      skipSuccessfulRequests: true,
      standardHeaders: 'draft-8',
      legacyHeaders: false,
      keyGenerator,
      handler: (_request, response) => sendProblem(response, 'too-many-tries'),
    });
  const addressOf = (request: Request): string => ipKeyGenerator(request.ip ?? '');
  const isKnown = async (request: Request): Promise<boolean> => {
    const account = await lauta.storage.read.people.findAccountByEmail(emailIn(request.body));
    return account !== null && isKnownBrowser(request, lauta.secret, account.accountId);
  };
  return {
    byAddress: limiter(triesPerAddress, addressOf),
    byAccount: [
      limiter(triesPerAccount, async (request) => {
        const from = (await isKnown(request)) ? 'a known browser' : addressOf(request);
        return `account ${emailIn(request.body)} from ${from}`;
      }),
      limiter(triesPerAccount * ALL_STRANGERS, (request) => `account ${emailIn(request.body)}`, isKnown),
    ],
  };
}

function emailIn(body: unknown): string {
  const email = typeof body === 'object' && body !== null && 'email' in body ? body.email : '';
  return typeof email === 'string' ? normalEmail(email.slice(0, 200)) : '';
}
