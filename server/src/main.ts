import { FlankKeeper } from './flank/flankKeeper.ts';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { resolve } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { pino } from 'pino';
import { createApp } from './app.ts';
import { frozenClock, realClock } from './clock.ts';
import { readConfig } from './config.ts';
import { loadDemo, openDemo } from './demo/loadDemo.ts';
import { secureRandom, type Lauta } from './lauta.ts';
import { openLiveHub } from './live/liveHub.ts';
import { openAnalysisPool } from './photo/analysisPool.ts';
import { openPool } from './storage/database.ts';
import { mariadbStorage } from './storage/storage.ts';

const KEEP_ALIVE_MS = 75_000;

/** Starts the server on the database of LAUTA_DB; ends on SIGTERM or SIGINT when the last answer is given. */
async function main(): Promise<void> {
  const config = readConfig(process.env);
  const logger = pino({ level: config.logLevel });
  const storage = mariadbStorage(openPool(config.databaseUri));
  const from = performance.now();
  await storage.migrate();
  process.stdout.write(`  migrate the database: ${((performance.now() - from) / 1000).toFixed(1)} s\n`);

  const stopping = new AbortController();
  const demo = await openDemo(storage, config.demo);
  const clock = config.frozenNow ? frozenClock(config.frozenNow) : realClock(demo?.clockOffsetMs ?? 0);
  const lauta: Lauta = {
    storage,
    clock,
    hub: openLiveHub(),
    bench: openAnalysisPool(),
    flanks: new FlankKeeper(storage),
    isDemo: demo !== null,
    random: secureRandom,
  };
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
  const { host, port, tls } = config;
  const server = tls
    ? createSecureServer({ cert: readFileSync(tls.certFile), key: readFileSync(tls.keyFile) }, app)
    : createServer(app);
  // Node closes what was idle for 5 s, as long as two taps are apart: a request that is written just then is lost.
  server.keepAliveTimeout = KEEP_ALIVE_MS;
  server.on('error', (error) => {
    logger.fatal({ err: error }, 'cannot listen');
    process.exit(1);
  });
  server.listen(port, host, () => {
    logger.info({ host, port, tls: tls !== null }, 'serving');
    // The start script waits for this line.
    process.stdout.write(`ready ${tls ? 'https' : 'http'}://${host}:${port}\n`);
  });

  const stop = async (signal: NodeJS.Signals): Promise<void> => {
    logger.info({ signal }, 'stopping');
    stopping.abort();
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

await main();
