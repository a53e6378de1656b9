import { v7 as uuidv7 } from 'uuid';
import {
  acceptInvitationSchema,
  acceptRenewalSchema,
  changePasswordSchema,
  demoSignInSchema,
  lookAtLinkSchema,
  setUpSchema,
  signInSchema,
  type LinkView,
  type SignInView,
  type Who,
} from '@lauta/contract';
import { clearTokenCookie, setKnownCookie, tokenOf } from '../http/cookies.ts';
import { idParameter, type RouteTable } from '../http/routeTable.ts';
import type { Lauta } from '../context/lauta.ts';
import { refuse } from '../base/refusal.ts';
import { fromOf, replaceToken } from './replaceToken.ts';
import { DEMO_EMAILS } from './demoEmails.ts';
import type { SignedInAccount } from '../access/peopleStore.ts';
import {
  acceptInvitation,
  acceptRenewal,
  beginSignIn,
  changePassword,
  lookAtLink,
  setUpFounder,
  signInWithPassword,
  signOutEverywhere,
  tokenSha256,
} from '../access/signIn.ts';
import { jsonBody, type SignInLimiters } from './signInLimiters.ts';

/** Who asks: signing in and out, the first director, links taken up, the own password and sign-ins. */
export function addSessionRoutes(table: RouteTable, { byAddress, byAccount }: SignInLimiters): void {
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

  addLinkRoutes(table, byAddress);
  addOwnAccountRoutes(table, byAddress);
}

/** The first director, and links that somebody was given. */
function addLinkRoutes(table: RouteTable, byAddress: SignInLimiters['byAddress']): void {
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
}

/** The own password, and where one is signed in. */
function addOwnAccountRoutes(table: RouteTable, byAddress: SignInLimiters['byAddress']): void {
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
