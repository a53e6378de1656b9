import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Navigate, useNavigate, useParams } from 'react-router';
import { z } from 'zod';
import { passwordSchema, setUpSchema } from '@lauta/contract';
import { sendJson } from '../door/http.ts';
import { Field } from '../frame/Field.tsx';
import { PlainFrame } from '../frame/PlainFrame.tsx';
import { ProblemNote } from '../problem/ProblemNote.tsx';
import { EmailField, PasswordField } from './SignInFields.tsx';
import { useForgetAll, useWho } from './queries.ts';

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

const choosePasswordSchema = z.strictObject({ password: passwordSchema });

/** An invited person chooses a password and is in. */
export function InvitationPage() {
  const { token = '' } = useParams();
  const { error, enter } = useEnter('/api/invitations/accept');
  const form = useForm<z.infer<typeof choosePasswordSchema>>({
    resolver: zodResolver(choosePasswordSchema),
    defaultValues: { password: '' },
  });
  const { errors, isSubmitting } = form.formState;
  return (
    <PlainFrame title="Welcome">
      <p className="text-quiet mb-4">
        Choose a password. With it and your e-mail address you sign in from now on.
      </p>
      <form
        className="grid gap-3"
        noValidate
        onSubmit={(event) => void form.handleSubmit(({ password }) => enter({ token, password }))(event)}
      >
        <PasswordField registration={form.register('password')} error={errors.password?.message} isNew />
        <ProblemNote error={error} />
        <button type="submit" className="btn btn-primary h-12" disabled={isSubmitting}>
          Come in
        </button>
      </form>
    </PlainFrame>
  );
}
