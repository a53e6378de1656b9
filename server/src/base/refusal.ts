import type { ProblemType } from '@lauta/contract';

export interface Issue {
  path: string;
  message: string;
}

/**
 * An expected refusal. It is thrown so that the transaction in which it came up is rolled back;
 * one place in `http/` turns it into the answer.
 */
export class Refusal extends Error {
  readonly type: ProblemType;
  readonly fields: Record<string, unknown> | undefined;
  readonly issues: readonly Issue[] | undefined;

  constructor(type: ProblemType, fields?: Record<string, unknown>, issues?: readonly Issue[]) {
    super(type);
    this.type = type;
    this.fields = fields;
    this.issues = issues;
  }
}

export function refuse(type: ProblemType, fields?: Record<string, unknown>): never {
  throw new Refusal(type, fields);
}
