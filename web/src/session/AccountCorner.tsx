import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { sendJson } from '../door/ask.ts';
import { useForgetAll, useWho } from './who.ts';
import { ProblemNote } from '../ui/ProblemNote.tsx';
import { ThemeChoice } from '../theme/ThemeChoice.tsx';

/** Who is signed in, the way out, and the light that the screen is read in. */
export function AccountCorner() {
  const who = useWho();
  const forgetAll = useForgetAll();
  const navigate = useNavigate();
  const [error, setError] = useState<unknown>(null);
  const leave = async (path: string): Promise<void> => {
    setError(null);
    try {
      await sendJson('POST', path, {});
      await forgetAll();
      await navigate('/sign-in');
    } catch (problem) {
      setError(problem);
    }
  };
  const account = who.data?.account;
  return (
    <div className="grid gap-2 pb-2">
      {account ? (
        <>
          <p className="leading-tight">
            <span className="text-quiet block text-sm">signed in as</span>
            <Link className="linklike font-bold" to="/account">
              {account.name}
            </Link>
          </p>
          <button
            type="button"
            className="linklike justify-self-start text-sm"
            onClick={() => void leave('/api/sign-out')}
          >
            Sign out
          </button>
          <button
            type="button"
            className="linklike justify-self-start text-sm"
            onClick={() => void leave('/api/sign-out-everywhere')}
          >
            Sign out everywhere
          </button>
        </>
      ) : (
        <Link className="btn" to={`/sign-in?to=${encodeURIComponent(location.pathname)}`}>
          Sign in
        </Link>
      )}
      <ProblemNote error={error} />
      <div className="-ml-2">
        <ThemeChoice />
      </div>
    </div>
  );
}
