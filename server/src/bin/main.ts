import { FlankKeeper } from '../same-fish/flankKeeper.ts';
import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { resolve } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Express } from 'express';
import { pino, type Logger } from 'pino';
import { createApp } from '../app/app.ts';
import { frozenClock, realClock } from '../base/clock.ts';
import { readConfig, type Config } from '../app/config.ts';
import { loadDemo, openDemo } from '../demo/loadDemo.ts';
import { installationSecret, openInstallation } from '../installation/installation.ts';
import { secureRandom, type Lauta } from '../context/lauta.ts';
import { openHeadSigner, passingSigner } from '../keys/headSigner.ts';
import { openLiveHub } from '../live/liveHub.ts';
import { clearForsaken } from '../photo/clearForsaken.ts';
import { openAnalysisPool } from '../bench/analysisPool.ts';
import { openPool } from '../storage/database.ts';
import { openDiskWatch, type DiskWatch } from '../storage/diskWatch.ts';
import { mariadbStorage } from '../app/storage.mariadb.ts';
import type { Storage } from '../storage/storage.ts';

const KEEP_ALIVE_MS = 75_000;
const HOUR_MS = 3_600_000;

/** Starts the server on the database of LAUTA_DB; ends on SIGTERM or SIGINT when the last answer is given. */
async function main(): Promise<void> {
  const config = readConfig(process.env);
  const logger = pino({ level: config.logLevel });
  const storage = mariadbStorage(openPool(config.databaseUri, { isServing: true }));
  const from = performance.now();
  await migrate(config, storage);
  process.stdout.write(`  migrate the database: ${((performance.now() - from) / 1000).toFixed(1)} s\n`);

  const stopping = new AbortController();
  const demo = await openDemo(storage, config.demo);
  // Pictures of a demo may stand still; a record whose clock does proves nothing.
  if (config.frozenNow && !demo) throw new Error('LAUTA_NOW: freezes a demo alone, and there is none here');
  const clock = config.frozenNow ? frozenClock(config.frozenNow) : realClock(demo?.clockOffsetMs ?? 0);
  const disk = await watchDisk(config, logger);
  const signer = config.ledgerKeyFile ? openHeadSigner(config.ledgerKeyFile) : passingSigner();
  const lauta: Lauta = {
    storage,
    clock,
    hub: openLiveHub(),
    bench: openAnalysisPool(),
    flanks: new FlankKeeper(storage),
    disk,
    signer,
    secret: await installationSecret(storage),
    isDemo: demo !== null,
    random: secureRandom,
  };
  await openInstallation(lauta);
  // The public halves alone: whoever restores a backup elsewhere knows by whom its records were signed.
  const publicKeys = signer.keys().map(({ publicKey }) => publicKey);
  await storage.read.settings.set('ledger-keys', JSON.stringify(publicKeys));
  const loading = demo
    ? await loadDemo(lauta, {
        catches: config.demoCatches,
        cacheDir: resolve(config.cacheDir),
        say: (text) => process.stdout.write(`${text}\n`),
        signal: stopping.signal,
      })
    : null;

  const loaded = loading?.finished.catch((error: unknown) =>
    logger.error({ err: error }, 'the demo could not be loaded'),
  );

  const { app } = createApp(lauta, { ...config, logger, webDir: config.webDir && resolve(config.webDir) });
  const server = listen(app, config, logger);

  const clearing = setInterval(() => {
    clearForsaken(lauta).catch((error: unknown) => logger.warn({ err: error }, 'forsaken files stay'));
  }, HOUR_MS);

  const stop = async (signal: NodeJS.Signals): Promise<void> => {
    logger.info({ signal }, 'stopping');
    stopping.abort();
    clearInterval(clearing);
    disk.close();
    server.close();
    server.closeIdleConnections();
    await Promise.race([loaded, sleep(3000)]);
    // Event streams never end by themselves.
    server.closeAllConnections();
    await lauta.bench.close();
    await storage.close();
    process.exit(0);
  };
  process.once('SIGTERM', (signal) => void stop(signal));
  process.once('SIGINT', (signal) => void stop(signal));
}

function watchDisk({ databaseDir, diskReserveBytes }: Config, logger: Logger): Promise<DiskWatch> {
  return openDiskWatch({
    dir: databaseDir,
    reserveBytes: diskReserveBytes,
    tell: (short, freeBytes) =>
      logger[short ? 'error' : 'warn'](
        { freeBytes },
        short ? 'room runs short: no more photographs are taken' : 'there is room again',
      ),
  });
}

function listen(app: Express, { host, port, tls }: Config, logger: Logger): Server {
  const server = tls
    ? createSecureServer({ cert: readFileSync(tls.certFile), key: readFileSync(tls.keyFile) }, app)
    : createServer(app);
  // Node closes what was idle for 5 s, as long as two taps are apart: a request that is written just then is lost.
  server.keepAliveTimeout = KEEP_ALIVE_MS;
  // Who dribbles holds nothing for long: a chunk of half a megabyte comes within it over any line that works.
  server.headersTimeout = 20_000;
  server.requestTimeout = 90_000;
  server.maxConnections = 4000;
  server.on('error', (error) => {
    logger.fatal({ err: error }, 'cannot listen');
    process.exit(1);
  });
  server.listen(port, host, () => {
    logger.info({ host, port, tls: tls !== null }, 'serving');
    // The start script waits for this line.
    process.stdout.write(`ready ${tls ? 'https' : 'http'}://${host}:${port}\n`);
  });
  return server;
}

/** Migrates by an account that may, and leaves the server's own with what it needs. */
async function migrate({ databaseUri, migrationUri }: Config, storage: Storage): Promise<void> {
  if (migrationUri === null) return storage.migrate();
  const other = mariadbStorage(openPool(migrationUri, { connectionLimit: 2 }));
  await other.migrate();
  const { username, password } = new URL(databaseUri);
  await other.grant(decodeURIComponent(username), password);
  await other.close();
}

await main();
