import { zodResolver } from '@hookform/resolvers/zod';
import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import { z } from 'zod';
import { passwordSchema, setUpSchema, type LinkView } from '@lauta/contract';
import { sendCommand } from '../../door/door.ts';
import { sendJson } from '../../door/ask.ts';
import { Field } from '../../ui/Field.tsx';
import { PlainFrame } from '../../ui/PlainFrame.tsx';
import { Loading } from '../../ui/states.tsx';
import { useOnce } from '../../ui/useOnce.ts';
import { ProblemNote } from '../../ui/ProblemNote.tsx';
import { EmailField, PasswordField } from './SignInFields.tsx';
import { useForgetAll, useWho } from '../../session/who.ts';

function useEnter(path: string) {
  const forgetAll = useForgetAll();
  const navigate = useNavigate();
  const [error, setError] = useState<unknown>(null);
  const enter = async (body: unknown): Promise<void> => {
    setError(null);
    try {
      await sendJson('POST', path, body);
      await forgetAll();
      await navigate('/', { replace: true });
    } catch (problem) {
      setError(problem);
    }
  };
  return { error, enter };
}

/** A new installation asks for its first director. */
export function SetUpPage() {
  const who = useWho();
  const { error, enter } = useEnter('/api/set-up');
  const form = useForm<z.infer<typeof setUpSchema>>({
    resolver: zodResolver(setUpSchema),
    defaultValues: { name: '', email: '', password: '' },
  });
  const { errors, isSubmitting } = form.formState;
  if (who.data?.isSetUp) return <Navigate to="/" replace />;
  return (
    <PlainFrame title="The first director">
      <p className="text-quiet mb-4">
        This installation is new. Who enters here creates events and invites everyone else.
      </p>
      <form className="grid gap-3" noValidate onSubmit={(event) => void form.handleSubmit(enter)(event)}>
        <Field label="Name" error={errors.name?.message}>
          {(props) => (
            <input {...props} {...form.register('name')} autoComplete="name" className="input h-12 w-full" />
          )}
        </Field>
        <EmailField registration={form.register('email')} error={errors.email?.message} />
        <PasswordField registration={form.register('password')} error={errors.password?.message} isNew />
        <ProblemNote error={error} />
        <button type="submit" className="btn btn-primary h-12" disabled={isSubmitting}>
          Enter the first director
        </button>
      </form>
    </PlainFrame>
  );
}

/** What a link offers, before anything is done with it. */
function useLink(token: string) {
  return useQuery({
    queryKey: ['link', token],
    retry: false,
    queryFn: () => sendJson<LinkView>('POST', '/api/links/look', { token }),
  });
}

/** An invited person comes to an event: with a new password, or with the account that is there already. */
export function InvitationPage() {
  const { token = '' } = useParams();
  const link = useLink(token);
  const who = useWho();
  if (link.error) return <DeadLink error={link.error} />;
  if (link.isPending || who.isPending)
    return (
      <PlainFrame title="Welcome">
        <Loading what="Looking at the link" />
      </PlainFrame>
    );
  const { eventName, hasPassword } = link.data;
  return (
    <PlainFrame title={eventName ?? 'Welcome'}>
      {hasPassword ? (
        <TakeUpRoles token={token} link={link.data} isSignedIn={Boolean(who.data?.account)} />
      ) : (
        <ChoosePassword path="/api/invitations/accept" token={token} action="Come in">
          Choose a password. With it and your e-mail address you sign in from now on.
        </ChoosePassword>
      )}
    </PlainFrame>
  );
}

/** Whoever forgot the password chooses another, by the code that the director handed over. */
export function RenewalPage() {
  const { token = '' } = useParams();
  const link = useLink(token);
  if (link.error) return <DeadLink error={link.error} />;
  return (
    <PlainFrame title="A new password">
      <ChoosePassword path="/api/renewals/accept" token={token} action="Take this password">
        Whoever is signed in with the old one is signed out. In other events your roles must be taken up anew.
      </ChoosePassword>
    </PlainFrame>
  );
}

function DeadLink({ error }: { error: unknown }) {
  return (
    <PlainFrame title="This link does not open">
      <ProblemNote error={error} />
      <a className="linklike" href="/">
        To the events
      </a>
    </PlainFrame>
  );
}

function TakeUpRoles({
  token,
  link: { eventId, eventName },
  isSignedIn,
}: {
  token: string;
  link: LinkView;
  isSignedIn: boolean;
}) {
  const forgetAll = useForgetAll();
  const navigate = useNavigate();
  const { run, error, isBusy } = useOnce();
  const accept = async (): Promise<void> => {
    await sendCommand('people.accept', eventId ?? '', { token });
    await forgetAll();
    await navigate(`/events/${eventId ?? ''}`, { replace: true });
  };
  if (!isSignedIn)
    return (
      <>
        <p className="mb-4">
          The address that was invited has an account already. Sign in with it, and take up what you may do in
          this event.
        </p>
        <Link
          className="btn btn-primary h-12"
          to={`/sign-in?to=${encodeURIComponent(`/invitation/${token}`)}`}
        >
          Sign in
        </Link>
        <p className="text-quiet mt-4 text-sm">
          If you never opened an account here, somebody else did under your address: tell the director of this
          event.
        </p>
      </>
    );
  return (
    <>
      <p className="mb-4">The director of {eventName ?? 'this event'} has given you something to do here.</p>
      <ProblemNote error={error} />
      <button
        type="button"
        className="btn btn-primary h-16 w-full"
        disabled={isBusy}
        onClick={() => void run(accept)}
      >
        Take part
      </button>
    </>
  );
}

const choosePasswordSchema = z.strictObject({ password: passwordSchema });

function ChoosePassword({
  path,
  token,
  action,
  children,
}: {
  path: string;
  token: string;
  action: string;
  children: ReactNode;
}) {
  const { error, enter } = useEnter(path);
  const form = useForm<z.infer<typeof choosePasswordSchema>>({
    resolver: zodResolver(choosePasswordSchema),
    defaultValues: { password: '' },
  });
  const { errors, isSubmitting } = form.formState;
  return (
    <>
      <p className="text-quiet mb-4">{children}</p>
      <form
        className="grid gap-3"
        noValidate
        onSubmit={(event) => void form.handleSubmit(({ password }) => enter({ token, password }))(event)}
      >
        <PasswordField registration={form.register('password')} error={errors.password?.message} isNew />
        <ProblemNote error={error} />
        <button type="submit" className="btn btn-primary h-12" disabled={isSubmitting}>
          {action}
        </button>
      </form>
    </>
  );
}
