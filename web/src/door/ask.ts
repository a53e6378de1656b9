import { problemSchema, type Problem } from '@lauta/contract';

/** What the server answered when it did not do what was asked; `network` when nothing answered at all. */
export class ApiProblem extends Error {
  readonly problem: Problem;

  constructor(problem: Problem) {
    super(problem.title);
    this.problem = problem;
  }

  get type(): string {
    return this.problem.type;
  }

  /** Trying again later may help. */
  get isPassing(): boolean {
    return this.type === 'network' || this.type === 'database-away' || this.problem.status >= 502;
  }
}

const NO_NETWORK: Problem = { type: 'network', title: 'no network', status: 0 };

export async function ask(path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new ApiProblem(NO_NETWORK);
  }
  if (response.ok) return response;
  throw new ApiProblem(await readProblem(response));
}

async function readProblem(response: Response): Promise<Problem> {
  const fallback = { type: 'server-fault', title: response.statusText, status: response.status };
  try {
    return problemSchema.parse(await response.json());
  } catch {
    return fallback;
  }
}

export async function getJson<T>(path: string, signal?: AbortSignal): Promise<T> {
  const response = await ask(path, signal ? { signal } : undefined);
  return (await response.json()) as T;
}

export async function sendJson<T>(
  method: 'POST' | 'PUT',
  path: string,
  body: unknown,
  headers: Record<string, string> = {},
): Promise<T> {
  const response = await ask(path, {
    method,
    headers: { 'content-type': 'application/json', ...headers },
    body: JSON.stringify(body),
  });
  return (await response.json()) as T;
}

/** Tries again with the same request while the trouble is a passing one. */
export async function withRetry<T>(
  act: () => Promise<T>,
  waitsMs: readonly number[] = [300, 1000, 2500],
): Promise<T> {
  for (const waitMs of waitsMs) {
    try {
      return await act();
    } catch (error) {
      if (!(error instanceof ApiProblem && error.isPassing)) throw error;
    }
    await new Promise((resolve) => setTimeout(resolve, waitMs));
  }
  return act();
}
