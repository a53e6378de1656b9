import { fork, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import pLimit from 'p-limit';
import type { AccountId } from '@lauta/core/ids';

export interface DecodedCopies {
  /** Stored lying: upright it is as wide as the file's picture is high. */
  isLying: boolean;
  screen: Uint8Array;
  thumb: Uint8Array;
}

export type Decoding =
  { ok: true; copies: DecodedCopies } | { ok: false; code: 'broken' | 'too-long' | 'ended' };

export interface DecoderOptions {
  /** A full decode takes some 150 MB: two at a time leave the server its memory and a core. */
  processes?: number;
  /** The largest fair photograph takes 2 s by itself. */
  limitMs?: number;
}

const PROCESS = fileURLToPath(new URL('./decoderProcess.mjs', import.meta.url));

/**
 * Decodes in processes of its own, which are ended when one takes too long: a thread inside of a picture library can't
 * be. One picture an account at a time, so that nobody's files stand in everybody's way.
 */
export function openDecoder({ processes = 2, limitMs = 15_000 }: DecoderOptions = {}) {
  const idle: ChildProcess[] = [];
  const slots = pLimit(processes);
  const accounts = new Map<string, ReturnType<typeof pLimit>>();

  const hire = (): ChildProcess => {
    const child = fork(PROCESS, { serialization: 'advanced', execArgv: [], stdio: 'ignore' });
    child.unref();
    child.channel?.unref();
    child.once('exit', () => {
      const at = idle.indexOf(child);
      if (at >= 0) idle.splice(at, 1);
    });
    return child;
  };

  const decodeOn = (child: ChildProcess, bytes: Uint8Array, maxPixels: number): Promise<Decoding> =>
    new Promise((resolve) => {
      const end = (decoding: Decoding): void => {
        clearTimeout(timer);
        child.removeAllListeners('message');
        child.off('exit', onExit);
        child.channel?.unref();
        if (decoding.ok || decoding.code === 'broken') idle.push(child);
        else child.kill('SIGKILL');
        resolve(decoding);
      };
      const onExit = (): void => end({ ok: false, code: 'ended' });
      const timer = setTimeout(() => end({ ok: false, code: 'too-long' }), limitMs);
      child.on('message', (answer: ({ ok: true } & DecodedCopies) | { ok: false }) => {
        end(answer.ok ? { ok: true, copies: answer } : { ok: false, code: 'broken' });
      });
      child.on('exit', onExit);
      child.channel?.ref();
      child.send({ bytes, maxPixels }, (error) => {
        if (error) end({ ok: false, code: 'ended' });
      });
    });

  return {
    async decode(accountId: AccountId, bytes: Uint8Array, maxPixels: number): Promise<Decoding> {
      const own = accounts.get(accountId) ?? pLimit(1);
      accounts.set(accountId, own);
      try {
        return await own(() => slots(() => decodeOn(idle.pop() ?? hire(), bytes, maxPixels)));
      } finally {
        if (own.activeCount + own.pendingCount === 0) accounts.delete(accountId);
      }
    },
  };
}
