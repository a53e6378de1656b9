import { X509Certificate } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { z } from 'zod';

const whole = (fallback: number) => z.coerce.number().int().min(0).default(fallback);

const schema = z
  .object({
    LAUTA_DB: z.string().min(1, 'the address of the database, mysql://…'),
    LAUTA_DB_MIGRATE: z.string().min(1).optional(),
    LAUTA_WEB: z.string().optional(),
    LAUTA_CACHE: z.string().default('.lauta/photographs'),
    LAUTA_NOW: z.iso.datetime({ offset: true }).optional(),
    LAUTA_DEMO: z.enum(['none', 'open']).default('none'),
    LAUTA_DEMO_CATCHES: whole(90),
    LAUTA_LOG: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
    LAUTA_DATABASE_DIR: z.string().min(1).optional(),
    LAUTA_DISK_RESERVE_MB: whole(512),
    LAUTA_LEDGER_KEY: z.string().min(1).optional(),
    LAUTA_HOSTNAMES: z.string().default(''),
    LAUTA_TRUST_PROXY: whole(0),
    LAUTA_TRIES_PER_ADDRESS: whole(60),
    LAUTA_TRIES_PER_ACCOUNT: whole(10),
    LAUTA_HOST: z.string().min(1).default('127.0.0.1'),
    LAUTA_TLS_CERT: z.string().min(1).optional(),
    LAUTA_TLS_KEY: z.string().min(1).optional(),
    PORT: whole(4310),
  })
  .refine(
    ({ LAUTA_TLS_CERT, LAUTA_TLS_KEY }) => (LAUTA_TLS_CERT === undefined) === (LAUTA_TLS_KEY === undefined),
    {
      message: 'certificate and key go together',
      path: ['LAUTA_TLS_KEY'],
    },
  );

export interface Config {
  databaseUri: string;
  /** The address for an account that may change tables and grant rights; null where one account does all. */
  migrationUri: string | null;
  /** Where the built pages are; without it only the API is served. */
  webDir: string | null;
  /** Where rendered demo photographs are kept. */
  cacheDir: string;
  /** Where the key is that signs heads of ledgers; null signs with one that passes with the process. */
  ledgerKeyFile: string | null;
  /** Where the database writes, when that is this machine. */
  databaseDir: string | null;
  /** Below so much room no photograph is taken. */
  diskReserveBytes: number;
  frozenNow: Date | null;
  demo: boolean;
  demoCatches: number;
  logLevel: string;
  /** How many proxies stand before the server; their word on address and scheme is taken. */
  trustProxy: number;
  triesPerAddress: number;
  triesPerAccount: number;
  port: number;
  /** Names of the server, from LAUTA_HOSTNAMES and its certificate; null where a proxy alone is trusted to know them. */
  hosts: readonly string[] | null;
  /** The address that is listened on. */
  host: string;
  /** Files in PEM; null where it is served without TLS. */
  tls: { certFile: string; keyFile: string } | null;
}

function hostsOf(values: z.infer<typeof schema>): string[] | null {
  const named = values.LAUTA_HOSTNAMES.split(',').map((name) => name.trim()).filter((name) => name !== ''); // prettier-ignore
  if (named.length === 0 && values.LAUTA_TRUST_PROXY > 0) return null;
  return [...named, ...(values.LAUTA_TLS_CERT ? namesIn(values.LAUTA_TLS_CERT) : [])];
}

/** The names that a certificate is for (RFC 5280, 4.2.1.6). */
function namesIn(certFile: string): string[] {
  try {
    const { subjectAltName = '' } = new X509Certificate(readFileSync(certFile));
    return [...subjectAltName.matchAll(/DNS:([^,\s]+)/g)].map(([, name = '']) => name);
  } catch {
    // That it can't be read is told when it is served with.
    return [];
  }
}

/** @throws ZodError naming the variable */
export function readConfig(env: Record<string, string | undefined>): Config {
  const values = schema.parse(env);
  return {
    databaseUri: values.LAUTA_DB,
    migrationUri: values.LAUTA_DB_MIGRATE ?? null,
    webDir: values.LAUTA_WEB ?? null,
    cacheDir: values.LAUTA_CACHE,
    ledgerKeyFile: values.LAUTA_LEDGER_KEY ?? null,
    databaseDir: values.LAUTA_DATABASE_DIR ?? null,
    diskReserveBytes: values.LAUTA_DISK_RESERVE_MB * 1024 * 1024,
    frozenNow: values.LAUTA_NOW ? new Date(values.LAUTA_NOW) : null,
    demo: values.LAUTA_DEMO === 'open',
    demoCatches: values.LAUTA_DEMO_CATCHES,
    logLevel: values.LAUTA_LOG,
    trustProxy: values.LAUTA_TRUST_PROXY,
    triesPerAddress: values.LAUTA_TRIES_PER_ADDRESS,
    triesPerAccount: values.LAUTA_TRIES_PER_ACCOUNT,
    port: values.PORT,
    hosts: hostsOf(values),
    host: values.LAUTA_HOST,
    tls:
      values.LAUTA_TLS_CERT && values.LAUTA_TLS_KEY
        ? { certFile: values.LAUTA_TLS_CERT, keyFile: values.LAUTA_TLS_KEY }
        : null,
  };
}
