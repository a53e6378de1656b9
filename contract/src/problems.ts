import { z } from 'zod';

/** Stable ids of everything that the server refuses, with the HTTP status of each. */
export const PROBLEM_STATUS = {
  'not-signed-in': 401,
  'sign-in-failed': 401,
  'too-many-tries': 429,
  'not-allowed': 403,
  'wrong-origin': 403,
  'not-found': 404,
  'invalid-request': 400,
  'invitation-used': 410,
  'already-set-up': 409,
  'idempotency-key-missing': 400,
  'idempotency-key-reused': 409,
  'unknown-zone': 422,
  'wall-time-skipped': 422,
  'sessions-overlap': 422,
  'no-rule-sheet': 409,
  'measure-fixed': 409,
  'event-exists': 409,
  'board-not-known': 422,
  'board-exists': 409,
  'too-many-boards': 409,
  'reading-refused': 422,
  'catch-exists': 409,
  'catch-withdrawn': 409,
  'handling-told': 409,
  'handling-not-later': 409,
  'clip-sent': 409,
  'catch-not-withdrawn': 409,
  'verdict-moved-on': 409,
  'own-catch': 403,
  'nothing-to-answer': 409,
  'photograph-missing': 422,
  'photograph-taken': 409,
  'photograph-declared-otherwise': 409,
  'chunk-out-of-place': 422,
  'chunk-size': 422,
  'checksum-mismatch': 422,
  'not-a-jpeg': 415,
  'not-a-clip': 415,
  'picture-broken': 422,
  'picture-too-large': 413,
  'picture-too-small': 422,
  'body-too-large': 413,
  'bench-busy': 503,
  'bench-failed': 422,
  'database-away': 503,
  'server-fault': 500,
} as const;

export type ProblemType = keyof typeof PROBLEM_STATUS;

/** RFC 9457. The sentence for people is made by the interface from `type` and the fields. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  requestId: z.string().optional(),
  fields: z.record(z.string(), z.unknown()).optional(),
  issues: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
});
export type Problem = z.infer<typeof problemSchema>;
