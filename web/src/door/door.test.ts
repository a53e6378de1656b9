import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { sendCommand } from './door.ts';
import { ApiProblem, withRetry } from './ask.ts';
import { SignInGivenUp, answerSignIn, onSignInAsked } from './askToSignIn.ts';
import { contentDigest, uploadPhotograph } from './uploadPhotograph.ts';

const EVENT = '0190c1d2-0000-7000-8000-000000000002';
const CATCH = { catchId: '0190c1d2-0000-7000-8000-000000000004' };

interface Sent {
  method: string;
  path: string;
  key: string | null;
  body: unknown;
}

const sent: Sent[] = [];
let answers: (() => Response | Promise<Response>)[] = [];

const json =
  (body: unknown, status = 200) =>
  () =>
    new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
const problem = (type: string, status: number) => json({ type, title: type, status }, status);
const receipt = json({ seq: 7 });
const noNetwork = () => Promise.reject(new TypeError('failed to fetch'));

beforeEach(() => {
  sent.length = 0;
  const kept = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, value: string) => void kept.set(name, value),
  });
  vi.stubGlobal('fetch', async (path: string, init: RequestInit = {}) => {
    const { body } = init;
    sent.push({
      method: init.method ?? 'GET',
      path,
      key: new Headers(init.headers).get('idempotency-key'),
      body: typeof body === 'string' ? JSON.parse(body) : body,
    });
    const answer = answers.shift();
    if (!answer) throw new Error('more was asked than was answered');
    return answer();
  });
  vi.useFakeTimers({ shouldAdvanceTime: true, advanceTimeDelta: 500 });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('the one door', () => {
  it('keeps a command the same through every retry, so that it is done once', async () => {
    answers = [noNetwork, problem('database-away', 503), receipt];
    expect(await sendCommand('catch.withdraw', EVENT, CATCH)).toEqual({ seq: 7 });
    expect(sent).toHaveLength(3);
    for (const one of sent) expect(one).toEqual(sent[0]);
    expect(sent[0]?.key).toBe((sent[0]?.body as { commandId: string }).commandId);
  });

  it('names the device, the same each time, and another id for each command', async () => {
    answers = [receipt, receipt];
    await sendCommand('catch.withdraw', EVENT, CATCH);
    await sendCommand('catch.restore', EVENT, CATCH);
    const [a, b] = sent.map((one) => one.body as { deviceId: string; commandId: string });
    expect(a?.deviceId).toBe(b?.deviceId);
    expect(a?.commandId).not.toBe(b?.commandId);
  });

  it('does not repeat what was refused', async () => {
    answers = [problem('not-allowed', 403)];
    await expect(sendCommand('catch.withdraw', EVENT, CATCH)).rejects.toMatchObject({ type: 'not-allowed' });
    expect(sent).toHaveLength(1);
  });

  it('gives up after some tries, saying that nothing answers', async () => {
    answers = [noNetwork, noNetwork, noNetwork, noNetwork];
    await expect(sendCommand('catch.withdraw', EVENT, CATCH)).rejects.toMatchObject({ type: 'network' });
    expect(sent).toHaveLength(4);
  });

  it('asks to sign in when the session has ended, and then goes on with the same command', async () => {
    answers = [problem('not-signed-in', 401), receipt];
    const leave = onSignInAsked((isAsking) => {
      if (isAsking) queueMicrotask(() => answerSignIn(true));
    });
    await sendCommand('catch.withdraw', EVENT, CATCH);
    leave();
    expect(sent).toHaveLength(2);
    expect(sent[1]).toEqual(sent[0]);
  });

  it('says so when nobody signed in', async () => {
    answers = [problem('not-signed-in', 401)];
    const leave = onSignInAsked((isAsking) => {
      if (isAsking) queueMicrotask(() => answerSignIn(false));
    });
    await expect(sendCommand('catch.withdraw', EVENT, CATCH)).rejects.toBeInstanceOf(SignInGivenUp);
    leave();
  });
});

describe('a retry', () => {
  it('is for passing trouble only', async () => {
    const act = vi.fn(() => Promise.reject(new ApiProblem({ type: 'not-found', title: '', status: 404 })));
    await expect(withRetry(act)).rejects.toBeInstanceOf(ApiProblem);
    expect(act).toHaveBeenCalledTimes(1);
  });
});

describe('a photograph on its way', () => {
  const photo = new Blob([new Uint8Array(25).map((_, i) => i)]);
  const state = (received: number[], isComplete = false) =>
    json({ photographId: 'p', state: isComplete ? 'complete' : 'receiving', chunkBytes: 10, received });
  const chunks = () => sent.filter((one) => one.path.includes('/chunks/')).map((one) => one.path.at(-1));
  const upload = (signal?: AbortSignal) => {
    const shares: number[] = [];
    const done = uploadPhotograph({
      photographId: 'p',
      eventId: EVENT,
      photo,
      sha256: 'ab',
      onProgress: (share) => shares.push(share),
      ...(signal ? { signal } : {}),
    });
    return done.then(() => shares);
  };

  it('is sent whole, in order, with its progress', async () => {
    answers = [state([]), json({}), json({}), json({}), state([0, 1, 2], true)];
    expect(await upload()).toEqual([0.25, 0.5, 0.75, 1]);
    expect(chunks()).toEqual(['0', '1', '2']);
    const bytes = await Promise.all(
      sent.slice(1, 4).map(async (one) => [...new Uint8Array(await (one.body as Blob).arrayBuffer())]),
    );
    expect(bytes.flat()).toEqual(Array.from({ length: 25 }, (_, i) => i));
  });

  it('tells each chunk’s digest', () => {
    // RFC 9530, appendix B.1: the digest of a JSON document and its newline.
    const text = new TextEncoder().encode('{"hello": "world"}\n');
    expect(contentDigest(text)).toBe('sha-256=:RK/0qy18MlBSVnWgjwz6lZEWjP/lF5HF9bvEF8FabDg=:');
  });

  it('goes on where it broke off', async () => {
    answers = [state([0, 2]), json({}), state([0, 1, 2], true)];
    await upload();
    expect(chunks()).toEqual(['1']);
  });

  it('that is there already is not sent again', async () => {
    answers = [state([0, 1, 2], true)];
    expect(await upload()).toEqual([1]);
    expect(sent).toHaveLength(1);
  });

  it('can be stopped between two chunks', async () => {
    const stopping = new AbortController();
    answers = [
      state([]),
      () => {
        stopping.abort();
        return json({})();
      },
    ];
    await expect(upload(stopping.signal)).rejects.toMatchObject({ name: 'AbortError' });
    expect(chunks()).toEqual(['0']);
  });
});
