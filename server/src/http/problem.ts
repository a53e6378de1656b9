import type { ErrorRequestHandler, Request, Response } from 'express';
import type { Logger } from 'pino';
import { ZodError } from 'zod';
import { PROBLEM_STATUS, type Problem, type ProblemType } from '@lauta/contract';
import { Refusal } from '../base/refusal.ts';
import { isDatabaseAway, isWithoutRoom, withoutData } from '../storage/database.ts';

/** Short titles; the sentence for people is made by the interface. */
const titleOf = (type: ProblemType): string => type.replaceAll('-', ' ');

/** RFC 9457. */
export function sendProblem(
  response: Response,
  type: ProblemType,
  detail: Pick<Problem, 'fields' | 'issues'> = {},
): void {
  const status = PROBLEM_STATUS[type];
  const requestId = response.getHeader('x-request-id');
  const problem: Problem = {
    type,
    title: titleOf(type),
    status,
    ...(typeof requestId === 'string' ? { requestId } : {}),
    ...(detail.fields ? { fields: detail.fields } : {}),
    ...(detail.issues ? { issues: detail.issues } : {}),
  };
  if (status === 503) response.setHeader('Retry-After', '2');
  response.status(status).type('application/problem+json').send(JSON.stringify(problem));
}

/** The one place where trouble becomes an answer. */
export function problemHandler(logger: Logger): ErrorRequestHandler {
  return (error: unknown, request: Request, response: Response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const refused = clientFault(error);
    if (error instanceof Refusal) {
      sendProblem(response, error.type, {
        ...(error.fields ? { fields: error.fields } : {}),
        ...(error.issues ? { issues: [...error.issues] } : {}),
      });
    } else if (error instanceof ZodError) {
      const issues = error.issues
        .slice(0, 20)
        .map(({ path, message }) => ({ path: path.join('.'), message }));
      sendProblem(response, 'invalid-request', { issues });
    } else if (refused) sendProblem(response, refused);
    else if (isDatabaseAway(error)) {
      logger.warn({ requestId: response.getHeader('x-request-id') }, 'database away');
      sendProblem(response, 'database-away');
    } else if (isWithoutRoom(error)) {
      logger.error({ requestId: response.getHeader('x-request-id') }, 'no room left');
      sendProblem(response, 'storage-full');
    } else {
      logger.error(
        {
          err: withoutData(error),
          requestId: response.getHeader('x-request-id'),
          path: plainPath(request.path),
        },
        'fault',
      );
      sendProblem(response, 'server-fault');
    }
  };
}

/** A link's token is a key. */
export function plainPath(path: string): string {
  return path.replace(/^\/+(pair|invitation|renewal)\/+.*/i, '/$1/…');
}

/** What Express and its parsers refuse by themselves: bodies too large or broken, paths that can't be read or served. */
function clientFault(error: unknown): ProblemType | null {
  const status = typeof error === 'object' && error !== null && 'status' in error ? error.status : null;
  if (typeof status !== 'number' || status < 400 || status > 499) return null;
  if (status === 404) return 'not-found';
  return status === 413 ? 'body-too-large' : 'invalid-request';
}
