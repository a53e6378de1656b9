/** What came of something that may be refused for an expected reason. */
export type Result<T, C> = { ok: true; value: T } | { ok: false; code: C };
