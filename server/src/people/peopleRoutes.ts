import rateLimit, { ipKeyGenerator } from 'express-rate-limit';
import express, { type Request, type RequestHandler, type Response } from 'express';
import { v7 as uuidv7 } from 'uuid';
import {
  acceptInvitationSchema,
  acceptRenewalSchema,
  acceptPairingSchema,
  changePasswordSchema,
  demoSignInSchema,
  lookAtLinkSchema,
  normalEmail,
  offerPairingSchema,
  setUpSchema,
  signInSchema,
  suspendSchema,
  type IdentifierView,
  type LinkView,
  type PairingView,
  type PersonView,
  type SignInView,
  type Who,
} from '@lauta/contract';
import { formatPayload, type Identifier } from '@lauta/core/identifier';
import type { Subject } from '@lauta/core/people';
import { cardSheet } from '../event/cardSheet.ts';
import {
  clearTokenCookie,
  isKnownBrowser,
  setKnownCookie,
  setTokenCookie,
  tokenOf,
} from '../http/cookies.ts';
import { sendProblem } from '../http/problem.ts';
import { entrantScope, eventScope, idParameter, type RouteTable } from '../http/routeTable.ts';
import { csvAnswer } from '../http/csvAnswer.ts';
import type { Lauta } from '../lauta.ts';
import { browserName } from './browserName.ts';
import { refuse } from '../refusal.ts';
import { DEMO_EMAILS } from './demoPeople.ts';
import type { SignedInAccount } from './peopleStore.ts';
import {
  acceptInvitation,
  acceptPairing,
  acceptRenewal,
  beginSignIn,
  changePassword,
  endPairing,
  invite,
  lookAtLink,
  offerPairing,
  offerRenewal,
  setUpFounder,
  signInWithPassword,
  signOutEverywhere,
  suspendAccount,
  tokenSha256,
  type SignInFrom,
  type Token,
} from './signIn.ts';

export interface SignInLimits {
  /** Failed tries in a quarter of an hour, for one address on the network and for one account. */
  triesPerAddress: number;
  triesPerAccount: number;
}

export function addPeopleRoutes(table: RouteTable, limits: SignInLimits): void {
  const { byAddress, byAccount } = signInLimiters(table.lauta, limits);

  /** The server's own clock, for devices to compare theirs with. */
  table.anyone('get', '/api/time', () => Promise.resolve({ serverMs: Date.now() }));

  table.anyone('get', '/api/who', ({ lauta, account }) => whoIs(lauta, account));

  table.anyone(
    'post',
    '/api/sign-in',
    async ({ lauta, request, response }) => {
      const { email, password } = signInSchema.parse(request.body);
      const token = await signInWithPassword(lauta, email, password, fromOf(request));
      await replaceToken(lauta, request, response, token);
      setKnownCookie(request, response, lauta.secret, token.accountId);
      return { ok: true };
    },
    [jsonBody(), byAddress, ...byAccount],
  );

  table.anyone('post', '/api/sign-in/demo', async ({ lauta, request, response }) => {
    const { role } = demoSignInSchema.parse(request.body);
    const account = lauta.isDemo
      ? await lauta.storage.read.people.findAccountByEmail(DEMO_EMAILS[role])
      : null;
    if (!account) refuse('not-found', { what: 'demo sign-in' });
    await replaceToken(
      lauta,
      request,
      response,
      await beginSignIn(lauta.storage.read, account.accountId, fromOf(request)),
    );
    return { ok: true };
  });

  table.signedIn('post', '/api/sign-out', async ({ lauta, request, response, account }) => {
    const token = tokenOf(request);
    if (token) await lauta.storage.read.people.removeSignIn(tokenSha256(token));
    lauta.hub.dropAccount(account.accountId);
    clearTokenCookie(request, response);
    return { ok: true };
  });

  table.signedIn('post', '/api/sign-out-everywhere', async ({ lauta, request, response, account }) => {
    if (account.pairing) refuse('not-allowed');
    await signOutEverywhere(lauta, account.accountId);
    clearTokenCookie(request, response);
    return { ok: true };
  });

  table.allowed(
    'post',
    '/api/pairings',
    'pair-phone',
    ({ request }) => {
      const { eventId, entrantId } = offerPairingSchema.parse(request.body);
      return Promise.resolve({ eventId, entrantId });
    },
    async ({ lauta, request, account }) => {
      const offer = offerPairingSchema.parse(request.body);
      const stores = lauta.storage.read;
      const { accountId } = account as SignedInAccount;
      if ((await stores.people.findEntrant(offer.entrantId))?.eventId !== offer.eventId)
        refuse('not-found', { what: 'entrant' });
      const { token, expiresAt } = await offerPairing(stores, { ...offer, accountId });
      return { path: `/pair/${token}`, expiresAt: expiresAt.toISOString() };
    },
  );

  table.anyone(
    'post',
    '/api/pairings/accept',
    async ({ lauta, request, response }) => {
      const { token } = acceptPairingSchema.parse(request.body);
      await replaceToken(lauta, request, response, await acceptPairing(lauta, token, fromOf(request)));
      return { ok: true };
    },
    [jsonBody(), byAddress],
  );

  table.signedIn('get', '/api/events/:eventId/own-pairings', async (asked) => {
    const { eventId } = await eventScope(asked);
    const { accountId, pairing } = asked.account;
    const own = pairing ? [] : await asked.lauta.storage.read.people.pairingsOf(accountId, eventId);
    return own.map(({ pairingId, job, createdAt, usedAt }): PairingView => ({
      pairingId,
      job,
      createdAt: createdAt.toISOString(),
      usedAt: usedAt?.toISOString() ?? null,
    }));
  });

  table.signedIn('post', '/api/own-pairings/:pairingId/end', async ({ lauta, request, account }) => {
    const pairingId = idParameter(request, 'pairingId');
    // A partner's phone may end its own.
    if (account.pairing && account.pairing.pairingId !== pairingId) refuse('not-allowed');
    await endPairing(lauta, account.accountId, pairingId);
    return { ok: true };
  });

  table.anyone(
    'post',
    '/api/set-up',
    async ({ lauta, request, response }) => {
      const founder = setUpSchema.parse(request.body);
      const token = await setUpFounder(lauta, { accountId: uuidv7(), ...founder }, fromOf(request));
      await replaceToken(lauta, request, response, token);
      return { ok: true };
    },
    [jsonBody(), byAddress],
  );

  table.anyone(
    'post',
    '/api/invitations/accept',
    async ({ lauta, request, response }) => {
      const { token, password } = acceptInvitationSchema.parse(request.body);
      const accepted = await acceptInvitation(lauta, token, password, fromOf(request));
      await replaceToken(lauta, request, response, accepted);
      return { ok: true };
    },
    [jsonBody(), byAddress],
  );

  table.anyone(
    'post',
    '/api/links/look',
    async ({ lauta, request }): Promise<LinkView> => {
      const { token } = lookAtLinkSchema.parse(request.body);
      return lookAtLink(lauta, token);
    },
    [jsonBody(), byAddress],
  );

  table.anyone(
    'post',
    '/api/renewals/accept',
    async ({ lauta, request, response }) => {
      const { token, password } = acceptRenewalSchema.parse(request.body);
      const accepted = await acceptRenewal(lauta, token, password, fromOf(request));
      await replaceToken(lauta, request, response, accepted);
      return { ok: true };
    },
    [jsonBody(), byAddress],
  );

  table.signedIn(
    'post',
    '/api/own-password',
    async ({ lauta, request, account }) => {
      if (account.pairing) refuse('not-allowed');
      const { current, next } = changePasswordSchema.parse(request.body);
      await changePassword(lauta, account, current, next);
      return { ok: true };
    },
    [jsonBody(), byAddress],
  );

  table.signedIn('get', '/api/own-sign-ins', async ({ lauta, account }): Promise<SignInView[]> => {
    if (account.pairing) return [];
    const own = await lauta.storage.read.people.signInsOf(account.accountId, new Date());
    return own.map(({ signInId, browser, createdAt, expiresAt, pairingId }) => ({
      signInId,
      browser,
      createdAt: createdAt.toISOString(),
      expiresAt: expiresAt.toISOString(),
      isThis: signInId === account.signInId,
      isPaired: pairingId !== null,
    }));
  });

  table.signedIn('post', '/api/own-sign-ins/:signInId/end', async ({ lauta, request, account }) => {
    if (account.pairing) refuse('not-allowed');
    const signInId = idParameter(request, 'signInId');
    if (!(await lauta.storage.read.people.endSignIn(account.accountId, signInId)))
      refuse('not-found', { what: 'sign-in' });
    lauta.hub.dropAccount(account.accountId);
    return { ok: true };
  });

  table.allowed(
    'post',
    '/api/events/:eventId/people/:accountId/renewal',
    'manage-people',
    eventScope,
    async ({ lauta, request, account }, { eventId }) => {
      const personId = idParameter(request, 'accountId');
      const { token, expiresAt } = await offerRenewal(lauta, account?.accountId ?? '', eventId, personId);
      return { path: `/renewal/${token}`, expiresAt: expiresAt.toISOString() };
    },
  );

  table.allowed(
    'post',
    '/api/events/:eventId/people/:accountId/suspension',
    'manage-people',
    eventScope,
    async ({ lauta, request, account }, { eventId }) => {
      const wish = suspendSchema.parse(request.body);
      const personId = idParameter(request, 'accountId');
      await suspendAccount(lauta, account as SignedInAccount, eventId, personId, wish);
      return { ok: true };
    },
  );

  table.allowed('get', '/api/events/:eventId/people', 'see-people', eventScope, ({ lauta }, { eventId }) =>
    listPeople(lauta, eventId),
  );

  table.allowed(
    'get',
    '/api/events/:eventId/people.csv',
    'see-people',
    eventScope,
    async ({ lauta, response }, { eventId }) => {
      const rows = (await listPeople(lauta, eventId)).map(({ name, email, roles, entrantNumber }) => ({
        number: entrantNumber ?? '',
        name,
        email,
        roles: roles.join(' '),
      }));
      return csvAnswer(response, 'people', rows);
    },
  );

  table.allowed(
    'post',
    '/api/events/:eventId/people/:accountId/invitation',
    'manage-people',
    eventScope,
    async ({ lauta, request }, { eventId }) => {
      const { token, expiresAt } = await invite(lauta, eventId, idParameter(request, 'accountId'));
      return { path: `/invitation/${token}`, expiresAt: expiresAt.toISOString() };
    },
  );

  table.allowed(
    'get',
    '/api/events/:eventId/entrants/:entrantId/identifiers',
    'see-identifier',
    entrantScope,
    async ({ lauta }, { eventId, entrantId }, subject): Promise<IdentifierView[]> => {
      const issued = await identifiersOf(lauta, eventId, entrantId ?? '', subject);
      return issued.map(({ dayId, identifier }) => ({
        dayId,
        code: identifier.code,
        payload: formatPayload(identifier),
      }));
    },
  );

  table.allowed(
    'get',
    '/api/events/:eventId/entrants/:entrantId/identifiers.pdf',
    'see-identifier',
    entrantScope,
    async ({ lauta, response }, { eventId, entrantId }, subject) => {
      const issued = await identifiersOf(lauta, eventId, entrantId ?? '', subject);
      return sendPdf(
        response,
        await cardSheet(
          issued.map(({ identifier }) => identifier),
          'Cards of an entrant',
        ),
      );
    },
  );

  table.allowed(
    'get',
    '/api/events/:eventId/days/:dayId/identifiers.pdf',
    'edit-event',
    eventScope,
    async ({ lauta, request, response }, { eventId }) => {
      const { events, people } = lauta.storage.read;
      const dayId = idParameter(request, 'dayId');
      if (!(await events.days(eventId)).some((day) => day.dayId === dayId))
        refuse('not-found', { what: 'day' });
      const eventCode = (await events.find(eventId))?.eventCode ?? '';
      const entrants = await people.entrantsOf(eventId);
      const issued = await events.identifiersOfDay(dayId);
      const cards = entrants.flatMap(({ entrantId, number }) =>
        issued
          .filter((one) => one.entrantId === entrantId)
          .map(({ code }): Identifier => ({ eventCode, entrantNumber: number, code })),
      );
      return sendPdf(response, await cardSheet(cards, 'Cards of a day'));
    },
  );
}

/** An entrant's codes; those whose time has not come are for directors and judges alone. */
async function identifiersOf(
  { storage, clock }: Lauta,
  eventId: string,
  entrantId: string,
  { roles }: Subject,
): Promise<{ dayId: string; identifier: Identifier }[]> {
  const { events, people } = storage.read;
  const now = clock.now();
  const eventCode = (await events.find(eventId))?.eventCode ?? '';
  const entrantNumber = (await people.findEntrant(entrantId))?.number ?? 0;
  const days = await events.days(eventId);
  const issued = await events.identifiersOf(entrantId);
  const seesAll = roles.has('director') || roles.has('judge');
  return issued
    .filter(({ dayId }) => {
      const from = days.find((day) => day.dayId === dayId)?.codesFrom ?? null;
      return seesAll || from === null || from <= now;
    })
    .map(({ dayId, code }) => ({ dayId, identifier: { eventCode, entrantNumber, code } }));
}

function sendPdf(response: Response, pdf: Buffer): undefined {
  response.setHeader('Content-Disposition', 'inline; filename="cards.pdf"');
  response.setHeader('Cache-Control', 'no-store');
  response.type('application/pdf').send(pdf);
}

async function listPeople(lauta: Lauta, eventId: string): Promise<PersonView[]> {
  const people = await lauta.storage.read.people.peopleOf(eventId);
  return people.map(({ account, roles, isAccepted, entrantNumber }) => ({
    accountId: account.accountId,
    // Whoever knows an address learns no name by it before its owner has come to the event.
    name: isAccepted || account.invitedByEventId === eventId ? account.name : '',
    email: account.email,
    roles,
    entrantNumber,
    hasPassword: account.passwordHash !== null,
    isAccepted,
    isSuspended: Boolean(account.suspendedAt),
    isInvitedHere: account.invitedByEventId === eventId,
  }));
}

async function whoIs(lauta: Lauta, account: SignedInAccount | null): Promise<Who> {
  const { clock, storage } = lauta;
  return {
    isSetUp: account !== null || (await storage.read.people.anyAccount()),
    isDemo: lauta.isDemo,
    clockOffsetMs: clock.offsetMs,
    frozenAt: clock.frozenAt?.toISOString() ?? null,
    account: account
      ? {
          accountId: account.accountId,
          name: account.name,
          ...(await standingOf(lauta, account)),
        }
      : null,
  };
}

/** What an account is on this installation; a partner's phone is an angler of one entrant and nothing else. */
async function standingOf(
  { storage }: Lauta,
  { accountId, founder, pairing }: SignedInAccount,
): Promise<Pick<NonNullable<Who['account']>, 'founder' | 'roles' | 'entrants' | 'pairing'>> {
  const { people } = storage.read;
  const roles = await people.rolesOf(accountId);
  if (!pairing) return { founder, roles, entrants: await people.entrantsWith(accountId), pairing: null };
  const { pairingId, eventId, entrantId, job } = pairing;
  return {
    founder: false,
    roles: roles.filter((one) => one.eventId === eventId && one.role === 'angler'),
    entrants: [{ eventId, entrantId }],
    pairing: { pairingId, eventId, entrantId, job },
  };
}

const jsonBody = (): RequestHandler => express.json({ limit: '16kb' });

const QUARTER_HOUR_MS = 15 * 60_000;

const fromOf = (request: Request): SignInFrom => ({ browser: browserName(request.get('user-agent')) });

/** Signing in over a sign-in ends that one: a browser has one at a time. */
async function replaceToken(
  lauta: Lauta,
  request: Request,
  response: Response,
  token: Pick<Token, 'token' | 'expiresAt'>,
): Promise<void> {
  const former = tokenOf(request);
  if (former) await lauta.storage.read.people.removeSignIn(tokenSha256(former));
  setTokenCookie(request, response, token);
}

/** Strangers from everywhere together may try so many times more than one of them. */
const ALL_STRANGERS = 10;

/**
 * Only failures count, so that a team behind one address is not locked out by signing in. An account's tries are counted
 * for each address on the network, and for a browser that signed in before by itself: whoever guesses elsewhere keeps
 * the owner out of none of the own devices.
 */
function signInLimiters(lauta: Lauta, { triesPerAddress, triesPerAccount }: SignInLimits) {
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
