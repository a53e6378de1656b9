import { zodResolver } from '@hookform/resolvers/zod';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Link, Navigate } from 'react-router';
import type { z } from 'zod';
import { changePasswordSchema, type SignInView } from '@lauta/contract';
import { getJson, sendJson } from '../../door/ask.ts';
import { hasFailed } from '../../ui/hasFailed.ts';
import { PlainFrame } from '../../ui/PlainFrame.tsx';
import { Failed, Loading } from '../../ui/states.tsx';
import { useOnce } from '../../ui/useOnce.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { PasswordField } from './SignInFields.tsx';
import { useWho } from '../../session/who.ts';

/** One's own account: where it is signed in, and its password. */
export function AccountPage() {
  const who = useWho();
  if (who.isPending) return <Loading what="Opening the account" />;
  const account = who.data?.account;
  if (!account) return <Navigate to="/sign-in?to=%2Faccount" replace />;
  return (
    <PlainFrame title={account.name}>
      {account.pairing ? (
        <p>
          This phone is paired to help an entrant. The account’s own phone has what belongs to the account.
        </p>
      ) : (
        <>
          <SignIns />
          <ChangePassword />
        </>
      )}
      <p className="mt-6">
        <Link className="linklike" to="/">
          To the events
        </Link>
      </p>
    </PlainFrame>
  );
}

const KEY = ['own-sign-ins'] as const;

function SignIns() {
  const client = useQueryClient();
  const signIns = useQuery({
    queryKey: KEY,
    queryFn: ({ signal }) => getJson<SignInView[]>('/api/own-sign-ins', signal),
  });
  const { run, error, isBusy } = useOnce();
  const end = async (signInId: string): Promise<void> => {
    await sendJson('POST', `/api/own-sign-ins/${signInId}/end`, {});
    await client.invalidateQueries({ queryKey: KEY });
  };
  return (
    <section aria-labelledby="sign-ins" className="mb-8">
      <h2 id="sign-ins">Where you are signed in</h2>
      {hasFailed(signIns) && <Failed error={signIns.error} retry={() => void signIns.refetch()} />}
      {signIns.isPending && <Loading what="Looking" />}
      <ul className="ruled border-base-300 mt-1 border-y">
        {signIns.data?.map((one) => (
          <li key={one.signInId} className="flex min-h-16 flex-wrap items-center justify-between gap-3 py-2">
            <span>
              <b>{one.browser || 'a browser that does not say what it is'}</b>
              {one.isThis && <b>, this one</b>}
              {one.isPaired && ', a partner’s phone'}
              <span className="text-quiet block text-sm">
                since{' '}
                {new Date(one.createdAt).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
              </span>
            </span>
            {!one.isThis && (
              <button
                type="button"
                className="btn h-12"
                disabled={isBusy}
                onClick={() => void run(() => end(one.signInId))}
              >
                Sign out
              </button>
            )}
          </li>
        ))}
      </ul>
      <ProblemNote error={error} />
    </section>
  );
}

type Form = z.infer<typeof changePasswordSchema>;

function ChangePassword() {
  const client = useQueryClient();
  const [error, setError] = useState<unknown>(null);
  const [isDone, setDone] = useState(false);
  const form = useForm<Form>({
    resolver: zodResolver(changePasswordSchema),
    defaultValues: { current: '', next: '' },
  });
  const { errors, isSubmitting } = form.formState;
  const change = async (values: Form): Promise<void> => {
    setError(null);
    setDone(false);
    try {
      await sendJson('POST', '/api/own-password', values);
      form.reset();
      setDone(true);
      await client.invalidateQueries({ queryKey: KEY });
    } catch (problem) {
      setError(problem);
    }
  };
  return (
    <section aria-labelledby="password">
      <h2 id="password">Another password</h2>
      <form
        className="mt-2 grid gap-3"
        noValidate
        onSubmit={(event) => void form.handleSubmit(change)(event)}
      >
        <PasswordField
          label="The password until now"
          registration={form.register('current')}
          error={errors.current && 'Write the password that you sign in with.'}
        />
        <PasswordField
          label="The new one"
          registration={form.register('next')}
          error={errors.next?.message}
          isNew
        />
        <ProblemNote error={error} />
        <button type="submit" className="btn btn-primary h-12" disabled={isSubmitting}>
          Change it
        </button>
        <p role="status">{isDone && 'Changed. Every other browser is signed out.'}</p>
      </form>
    </section>
  );
}
