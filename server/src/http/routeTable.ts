import rateLimit from 'express-rate-limit';
import express, { Router, type Request, type RequestHandler, type Response } from 'express';
import type { Capability, Subject } from '@lauta/core/people';
import type { Lauta } from '../context/lauta.ts';
import type { SignedInAccount } from '../access/peopleStore.ts';
import { requireMay, type Scope } from '../access/scope.ts';
import { accountOfToken } from '../access/signIn.ts';
import { refuse } from '../base/refusal.ts';
import { tokenOf } from './cookies.ts';
import { sendProblem } from './problem.ts';
import type { EntrantId, EventId } from '@lauta/core/ids';

/** What a route's handler is given, once the caller was let in. */
export interface Asked {
  lauta: Lauta;
  request: Request;
  response: Response;
  account: SignedInAccount | null;
}

export interface AskedSignedIn extends Asked {
  account: SignedInAccount;
}

type Method = 'get' | 'post' | 'put';

/** Who may call: anyone, whoever is signed in, or whom the table in core allows it. */
export type Access = 'anyone' | 'signed-in' | Capability;

export interface RouteLine {
  method: Method;
  path: string;
  access: Access;
}

type ScopeOf = (asked: Asked) => Promise<Scope & { eventId: EventId }>;

const WRITES_PER_MINUTE = 1500;
const JSON_BODY = express.json({ limit: '256kb' });

/**
 * Every route of the server, each with who may call it. A route can't be added without saying so:
 * the check stands here, before the handler, and not in it.
 */
export class RouteTable {
  readonly router = Router();
  readonly lines: RouteLine[] = [];
  readonly lauta: Lauta;
  private readonly budget: RequestHandler;

  constructor(lauta: Lauta, writesPerMinute = WRITES_PER_MINUTE) {
    this.lauta = lauta;
    this.budget = rateLimit({
      windowMs: 60_000,
      limit: writesPerMinute,
      standardHeaders: false,
      legacyHeaders: false,
      skip: (_request, response) => !response.locals['account'],
      keyGenerator: (_request, response) => (response.locals['account'] as SignedInAccount).accountId,
      handler: (_request, response) => sendProblem(response, 'too-many-tries'),
    });
  }

  anyone(
    method: Method,
    path: string,
    handle: (asked: Asked) => Promise<unknown>,
    before: RequestHandler[] = [],
  ): void {
    this.add({ method, path, access: 'anyone' }, handle, before);
  }

  signedIn(
    method: Method,
    path: string,
    handle: (asked: AskedSignedIn) => Promise<unknown>,
    before: RequestHandler[] = [],
  ): void {
    this.add(
      { method, path, access: 'signed-in' },
      (asked) => {
        const { account } = asked;
        if (!account) refuse('not-signed-in');
        return handle({ ...asked, account });
      },
      before,
    );
  }

  /** Only for whom `capability` is allowed on what `scopeOf` says the request is about. */
  allowed(
    method: Method,
    path: string,
    capability: Capability,
    scopeOf: ScopeOf,
    handle: (asked: Asked, scope: Scope & { eventId: EventId }, subject: Subject) => Promise<unknown>,
    before: RequestHandler[] = [],
  ): void {
    this.add(
      { method, path, access: capability },
      async (asked) => {
        const scope = await scopeOf(asked);
        const subject = await requireMay(this.lauta.storage.read, asked.account, capability, scope);
        return handle(asked, scope, subject);
      },
      before,
    );
  }

  private add(line: RouteLine, handle: (asked: Asked) => Promise<unknown>, before: RequestHandler[]): void {
    this.lines.push(line);
    const body = line.method === 'get' || before.length > 0 ? [] : [JSON_BODY];
    const isOpen = line.method === 'get' || line.access === 'anyone';
    // Who is nobody sends no body: it is not even read.
    const known: RequestHandler = async (request, response, next) => {
      const account = await accountOfToken(this.lauta, tokenOf(request));
      if (!account && !isOpen) refuse('not-signed-in');
      response.locals['account'] = account;
      next();
    };
    const budget = line.method === 'get' ? [] : [this.budget];
    this.router[line.method](
      line.path,
      known,
      ...budget,
      ...body,
      ...before,
      wholeLetters,
      async (request, response) => {
        const account = response.locals['account'] as SignedInAccount | null;
        const answer = await handle({ lauta: this.lauta, request, response, account });
        if (answer === undefined || response.headersSent) return;
        response.setHeader('Cache-Control', 'no-store');
        response.json(answer);
      },
    );
  }
}

/** A letter that is only half there has no canonical form, so nothing that holds one can be entered. */
const wholeLetters: RequestHandler = (request, _response, next) => {
  if (!(request.body instanceof Uint8Array) && holdsHalfLetter(request.body)) refuse('invalid-request');
  next();
};

function holdsHalfLetter(value: unknown): boolean {
  if (typeof value === 'string') return /\p{Cs}/u.test(value);
  if (typeof value !== 'object' || value === null) return false;
  return Object.entries(value).some(([name, inner]) => holdsHalfLetter(name) || holdsHalfLetter(inner));
}

/** A path's parameter that names something by UUID; anything else names nothing. */
export function idParameter(request: Request, name: string): string {
  const value = request.params[name];
  if (typeof value !== 'string' || !/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(value)) {
    refuse('not-found');
  }
  return value.toLowerCase();
}

/** One entrant of an event. */
export async function entrantScope(asked: Asked): Promise<{ eventId: EventId; entrantId: EntrantId }> {
  const { eventId } = await eventScope(asked);
  const entrantId = idParameter(asked.request, 'entrantId');
  const entrant = await asked.lauta.storage.read.people.findEntrant(entrantId);
  if (entrant?.eventId !== eventId) refuse('not-found', { what: 'entrant' });
  return { eventId, entrantId };
}

export interface PageAsked {
  page: number;
  pageSize: number;
  offset: number;
}

/** `?page=1&pageSize=50`, bounded. */
export function pageAsked(request: Request, defaultSize = 50, maxSize = 200): PageAsked {
  const whole = (value: unknown, fallback: number, max: number): number => {
    const number = Number(value ?? fallback);
    return Number.isInteger(number) && number >= 1 ? Math.min(number, max) : fallback;
  };
  const page = whole(request.query['page'], 1, 100_000);
  const pageSize = whole(request.query['pageSize'], defaultSize, maxSize);
  return { page, pageSize, offset: (page - 1) * pageSize };
}

/** `?search=`, folded to small letters; empty when nothing is looked for. */
export function searchAsked(request: Request): string {
  return String(request.query['search'] ?? '')
    .trim()
    .toLowerCase()
    .slice(0, 80);
}

/** Whether an entrant is meant by a search: by a part of the name, or by the number. */
export function isFound(entrant: { name: string; number: number }, search: string): boolean {
  return search === '' || entrant.name.toLowerCase().includes(search) || String(entrant.number) === search;
}

export const eventScope: ScopeOf = async ({ lauta, request }) => {
  const eventId = idParameter(request, 'eventId');
  if (!(await lauta.storage.read.events.find(eventId))) refuse('not-found', { what: 'event' });
  return { eventId };
};
