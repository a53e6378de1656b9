import type { UseFormRegisterReturn } from 'react-hook-form';
import { Field } from '../../ui/Field.tsx';

interface Props {
  registration: UseFormRegisterReturn;
  error: string | undefined;
}

export function EmailField({ registration, error }: Props) {
  return (
    <Field label="E-mail address" error={error}>
      {(field) => (
        <input
          {...field}
          {...registration}
          type="email"
          autoComplete="username"
          className="input h-12 w-full"
        />
      )}
    </Field>
  );
}

export function PasswordField({
  registration,
  error,
  isNew = false,
  label = 'Password',
}: Props & { isNew?: boolean; label?: string }) {
  return (
    <Field label={label} hint={isNew ? 'At least ten characters.' : undefined} error={error}>
      {(field) => (
        <input
          {...field}
          {...registration}
          type="password"
          autoComplete={isNew ? 'new-password' : 'current-password'}
          className="input h-12 w-full"
        />
      )}
    </Field>
  );
}
