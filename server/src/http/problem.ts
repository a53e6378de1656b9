import type { ErrorRequestHandler, Request, Response } from 'express';
import type { Logger } from 'pino';
import { ZodError } from 'zod';
import { PROBLEM_STATUS, type Problem, type ProblemType } from '@lauta/contract';
import { Refusal } from '../refusal.ts';
import { isDatabaseAway } from '../storage/database.ts';

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
    } else if (isBodyError(error, 'entity.too.large')) sendProblem(response, 'body-too-large');
    else if (isBodyError(error, 'entity.parse.failed') || isBodyError(error, 'encoding.unsupported')) {
      sendProblem(response, 'invalid-request');
    } else if (isDatabaseAway(error)) {
      logger.warn({ requestId: response.getHeader('x-request-id') }, 'database away');
      sendProblem(response, 'database-away');
    } else {
      logger.error(
        { err: error, requestId: response.getHeader('x-request-id'), path: request.path },
        'fault',
      );
      sendProblem(response, 'server-fault');
    }
  };
}

function isBodyError(error: unknown, type: string): boolean {
  return typeof error === 'object' && error !== null && 'type' in error && error.type === type;
}
