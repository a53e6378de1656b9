import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { z } from 'zod';
import { signInSchema } from '@lauta/contract';
import { ROLES, type Role } from '@lauta/core/people';
import { sendJson } from '../../door/ask.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { EmailField, PasswordField } from './SignInFields.tsx';

const ROLE_WORDS: Record<Role, { name: string; what: string }> = {
  angler: { name: 'Angler', what: 'claims catches' },
  judge: { name: 'Judge', what: 'decides on them' },
  'weigh-master': { name: 'Weigh master', what: 'weighs' },
  director: { name: 'Director', what: 'runs the event' },
};

export function roleName(role: Role): string {
  return ROLE_WORDS[role].name;
}

const ORDER: readonly Role[] = ['angler', 'judge', 'weigh-master', 'director'];

export function SignInForm({
  isDemo,
  onSignedIn,
}: {
  isDemo: boolean;
  onSignedIn: () => Promise<void> | void;
}) {
  const form = useForm<z.infer<typeof signInSchema>>({
    resolver: zodResolver(signInSchema),
    defaultValues: { email: '', password: '' },
  });
  const [error, setError] = useState<unknown>(null);
  const [isBusy, setBusy] = useState(false);
  const send = async (path: string, body: unknown): Promise<void> => {
    if (isBusy) return;
    setBusy(true);
    setError(null);
    try {
      await sendJson('POST', path, body);
      await onSignedIn();
    } catch (problem) {
      setError(problem);
    } finally {
      setBusy(false);
    }
  };
  const { errors } = form.formState;
  return (
    <div className="grid gap-6">
      {isDemo && (
        <section aria-label="Demo" className="grid gap-2">
          <p className="text-quiet">This is the demo: choose a role to sign in as.</p>
          <div className="grid gap-2 sm:grid-cols-2">
            {ORDER.filter((role) => ROLES.includes(role)).map((role) => (
              <button
                key={role}
                type="button"
                className="btn h-16 justify-between px-3 whitespace-nowrap"
                disabled={isBusy}
                onClick={() => void send('/api/sign-in/demo', { role })}
              >
                <span className="text-lg font-bold">{ROLE_WORDS[role].name}</span>
                <span className="text-quiet font-normal">{ROLE_WORDS[role].what}</span>
              </button>
            ))}
          </div>
        </section>
      )}
      <form
        className="grid gap-3"
        noValidate
        onSubmit={(event) => void form.handleSubmit((values) => send('/api/sign-in', values))(event)}
      >
        <EmailField registration={form.register('email')} error={errors.email?.message} />
        <PasswordField registration={form.register('password')} error={errors.password?.message} />
        <ProblemNote error={error} />
        <button type="submit" className="btn btn-primary h-12" disabled={isBusy}>
          Sign in
        </button>
      </form>
    </div>
  );
}
