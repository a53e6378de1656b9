import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import express, { type Express, type RequestHandler } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { addBoardRoutes } from '../board/boardRoutes.ts';
import { addCatchRoutes } from '../catch/catchRoutes.ts';
import { addCommandRoutes } from '../dispatch/commandRoutes.ts';
import { addEvidenceRoutes } from '../evidence/evidenceRoutes.ts';
import { addCustodyRoutes } from '../custody/custodyRoutes.ts';
import { addEventRoutes } from '../event/eventRoutes.ts';
import { hostsAllowed } from '../http/hosts.ts';
import { plainPath, problemHandler, sendProblem } from '../http/problem.ts';
import { RouteTable, type RouteLine } from '../http/routeTable.ts';
import { sameOrigin } from '../http/sameOrigin.ts';
import type { Lauta } from '../context/lauta.ts';
import { addLedgerRoutes } from '../verify/ledgerRoutes.ts';
import { addStreamRoutes } from '../event/streamRoutes.ts';
import { addIdentifierRoutes } from '../event/identifierRoutes.ts';
import { addPairingRoutes } from '../session/pairingRoutes.ts';
import { addPeopleRoutes } from '../people/peopleRoutes.ts';
import { addSessionRoutes } from '../session/sessionRoutes.ts';
import { signInLimiters, type SignInLimiters, type SignInLimits } from '../session/signInLimiters.ts';
import { addPhotographRoutes } from '../photo/photographRoutes.ts';
import { addStandingsRoutes } from '../scoring/standingsRoutes.ts';
import { addSpecimenRoutes } from '../specimen/specimenRoutes.ts';
import { addWeighInRoutes } from '../weigh-in/weighInRoutes.ts';
import { addWellRoutes } from '../well/wellRoutes.ts';
import { addWatersRoutes } from '../waters/watersRoutes.ts';

export interface AppOptions extends SignInLimits {
  logger: Logger;
  webDir: string | null;
  trustProxy: number;
  /** Names under which it may be asked, beside loopback and bare addresses; null where a proxy sees to that. */
  hosts: readonly string[] | null;
  /** Writes of one account: more in a minute than any hand or outbox makes wait a moment. */
  writesPerMinute?: number;
}

/** What the pages use themselves, and nobody in a frame. */
const PERMISSIONS = ['camera', 'geolocation', 'microphone', 'serial', 'accelerometer', 'gyroscope', 'magnetometer', 'screen-wake-lock', 'fullscreen', 'autoplay', 'clipboard-write'].map((name) => `${name}=(self)`).concat(['bluetooth', 'usb', 'midi', 'payment', 'display-capture', 'publickey-credentials-get'].map((name) => `${name}=()`)).join(', '); // prettier-ignore

/** The whole server without its socket; the table of its routes beside it. */
export function createApp(lauta: Lauta, options: AppOptions): { app: Express; routes: readonly RouteLine[] } {
  const { logger, webDir } = options;
  const app = express();
  app.set('trust proxy', options.trustProxy);
  app.disable('x-powered-by');
  app.use(requestLog(logger));
  app.use(securityHeaders());
  app.use((_request, response, next) => {
    response.setHeader('Permissions-Policy', PERMISSIONS);
    next();
  });
  app.use(hostsAllowed(options.hosts));

  app.get('/healthz', (_request, response) => {
    response.json({ ok: true });
  });
  app.get('/readyz', async (_request, response) => {
    await lauta.storage.ping();
    const { disk } = lauta;
    response
      .status(disk.isFull() ? 503 : 200)
      .json({ ok: !disk.isFull(), takesPhotographs: !disk.isShort() });
  });

  const table = new RouteTable(lauta, options.writesPerMinute);
  addRoutes(table, signInLimiters(lauta, options));
  app.use('/api', sameOrigin);
  app.use(table.router);
  app.all('/api/{*rest}', (_request, response) => sendProblem(response, 'not-found'));

  if (webDir) servePages(app, webDir);
  app.use(problemHandler(logger));
  return { app, routes: table.lines };
}

function addRoutes(table: RouteTable, limiters: SignInLimiters): void {
  addSessionRoutes(table, limiters);
  addPairingRoutes(table, limiters);
  addPeopleRoutes(table);
  addIdentifierRoutes(table);
  addEventRoutes(table);
  addBoardRoutes(table);
  addStandingsRoutes(table);
  addCatchRoutes(table);
  addEvidenceRoutes(table);
  addPhotographRoutes(table);
  addCustodyRoutes(table);
  addWatersRoutes(table);
  addWellRoutes(table);
  addSpecimenRoutes(table);
  addWeighInRoutes(table);
  addLedgerRoutes(table);
  addStreamRoutes(table);
  addCommandRoutes(table);
}

function requestLog(logger: Logger): RequestHandler {
  return pinoHttp({
    logger,
    genReqId: (_request, response) => {
      const id = randomUUID();
      response.setHeader('x-request-id', id);
      return id;
    },
    // No cookies, no bodies, no addresses of people: a line says what was asked and how it ended.
    serializers: {
      req: ({ id, method, url }: { id: string; method: string; url: string }) => ({
        id,
        method,
        url: plainPath(url.split('?')[0] ?? ''),
      }),
      res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
    },
    customLogLevel: (_request, response, error) =>
      error || response.statusCode === 500 ? 'error' : response.statusCode >= 400 ? 'info' : 'debug',
  });
}

function securityHeaders(): RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        mediaSrc: ["'self'", 'blob:'],
        workerSrc: ["'self'", 'blob:'],
        // Chart and map set styles by script, which this allows; none stands in the page's text.
        styleSrc: ["'self'"],
        fontSrc: ["'self'"],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
        upgradeInsecureRequests: null,
      },
    },
    // The host's neighbours are not ours to speak for.
    strictTransportSecurity: { maxAge: 180 * 86_400, includeSubDomains: false },
  });
}

function servePages(app: Express, webDir: string): void {
  app.use(
    '/assets',
    express.static(join(webDir, 'assets'), { immutable: true, maxAge: '365d', fallthrough: false }),
  );
  app.use(
    express.static(webDir, {
      index: false,
      maxAge: '1h',
      // A service worker that is asked for anew each time never keeps a page on a version that is gone.
      setHeaders: (response, path) => {
        if (/(sw\.js|\.webmanifest)$/.test(path)) response.setHeader('Cache-Control', 'no-cache');
      },
    }),
  );
  app.get('/{*page}', (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(join(webDir, 'index.html'));
  });
}
