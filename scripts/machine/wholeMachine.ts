// What tests of the whole machine share: directories of their own, `npm start` as a person runs it, a small client.
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { afterAll } from 'vitest';
import { ROOT } from './installation.mjs';

const made: string[] = [];
export function scratch(): string {
  const dir = mkdtempSync(join(tmpdir(), 'lauta-machine-'));
  made.push(dir);
  return dir;
}
afterAll(() => made.forEach((dir) => rmSync(dir, { recursive: true, force: true })));

/** A browser of few words: it keeps its cookie and says where it comes from. */
export class Client {
  private cookie = '';
  private readonly base: string;
  constructor(base: string) {
    this.base = base;
  }
  async ask(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
    bytes?: Uint8Array,
  ) {
    const response = await fetch(this.base + path, {
      method,
      headers: { origin: this.base, cookie: this.cookie, ...(body ? { 'content-type': 'application/json' } : {}), ...headers },
      ...(body ? { body: JSON.stringify(body) } : bytes ? { body: Buffer.from(bytes) } : {}),
    }); // prettier-ignore
    const cookie = response.headers.get('set-cookie')?.split(';')[0];
    if (cookie) this.cookie = cookie;
    const text = await response.text();
    return {
      status: response.status,
      headers: response.headers,
      text,
      json: () => JSON.parse(text) as never,
    };
  }
  bytes(path: string, bytes: Uint8Array) {
    return this.ask('PUT', path, undefined, { 'content-type': 'application/octet-stream' }, bytes);
  }
  command(kind: string, eventId: string, body: unknown, commandId: string = crypto.randomUUID()) {
    const madeAt = new Date().toISOString();
    const envelope = { v: 1, commandId, eventId, madeAt, deviceId: crypto.randomUUID(), kind, body };
    return this.ask('POST', '/api/commands', envelope, { 'idempotency-key': commandId });
  }
}

export const FOUNDER = { name: 'First', email: 'first@lake.example', password: 'a long enough one' };

export function newEvent(eventId: string) {
  return {
    eventId,
    name: 'Here to stay',
    zone: 'Europe/Warsaw',
    isPublic: true,
    days: [{ date: '2026-06-14', sessions: [{ linesInLocal: '2026-06-14T06:00', linesOutLocal: '2026-06-14T15:00' }] }], // prettier-ignore
  };
}

export async function until(holds: () => Promise<boolean>, patienceMs = 30_000): Promise<void> {
  const end = Date.now() + patienceMs;
  while (!(await holds())) {
    if (Date.now() > end) throw new Error('it did not come to hold in time');
    await sleep(200);
  }
}

/** `npm start` as a person runs it, in a directory of its own. */
export class Start {
  output = '';
  readonly child: ChildProcess;
  readonly ended: Promise<number | null>;
  constructor(dir: string, port: number, flags: string[] = [], more: Record<string, string> = {}) {
    this.child = spawn(process.execPath, ['scripts/start.mjs', ...flags], {
      cwd: ROOT,
      env: {
        ...process.env,
        LAUTA_DIR: dir,
        PORT: String(port),
        LAUTA_DEMO_CATCHES: '1',
        LAUTA_LOG: 'error',
        ...more,
      },
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    this.child.stdout?.on('data', (chunk) => (this.output += chunk));
    this.child.stderr?.on('data', (chunk) => (this.output += chunk));
    this.ended = new Promise((resolve) => this.child.on('close', (code) => resolve(code)));
  }
  async up(): Promise<void> {
    await until(async () => {
      if (this.child.exitCode !== null) throw new Error(this.output);
      return this.output.includes('Ctrl-C stops it.');
    }, 120_000);
  }
}

export const pidIn = (file: string): number => Number(readFileSync(file, 'utf8'));
