import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { ApiProblem } from '../door/ask.ts';
import { problemWords } from '../problem/words.ts';
import { Signal } from './Signal.tsx';

/** A ruled line that is being read: shown while something is on its way. */
export function Loading({ what }: { what: string }) {
  return (
    <p role="status" className="text-quiet flex items-center gap-3 py-8">
      <span className="loading loading-dots loading-sm" aria-hidden="true" />
      {what}
    </p>
  );
}

export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="border-base-300 border-y py-8">
      <p className="font-bold">{title}</p>
      {children && <div className="text-quiet mt-1">{children}</div>}
    </div>
  );
}

export function Failed({ error, retry }: { error: unknown; retry?: () => void }) {
  const isPassing = error instanceof ApiProblem && error.isPassing;
  const mustSignIn = error instanceof ApiProblem && error.type === 'not-signed-in';
  return (
    <div role="alert" className="border-base-300 border-y py-8">
      <Signal tone={isPassing || mustSignIn ? 'look' : 'fault'}>
        {mustSignIn ? 'sign in' : isPassing ? 'away' : 'could not be loaded'}
      </Signal>
      <p className="mt-1">{problemWords(error)}</p>
      <div className="mt-4 flex gap-2">
        {mustSignIn ? (
          <Link className="btn btn-primary" to={`/sign-in?to=${encodeURIComponent(location.pathname)}`}>
            Sign in
          </Link>
        ) : (
          retry && (
            <button type="button" className="btn" onClick={retry}>
              Try again
            </button>
          )
        )}
      </div>
    </div>
  );
}
