import { useId, type ReactNode } from 'react';

interface FieldProps {
  id: string;
  'aria-invalid': boolean;
  'aria-describedby': string | undefined;
}

/** A labelled field with its hint and its error in reach of a screen reader. */
export function Field({
  label,
  hint,
  error,
  children,
}: {
  label: string;
  hint?: ReactNode;
  error?: string | undefined;
  children: (props: FieldProps) => ReactNode;
}) {
  const id = useId();
  const note = error ?? hint;
  return (
    <div className="grid content-start gap-1">
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      {children({
        id,
        'aria-invalid': error !== undefined,
        'aria-describedby': note ? `${id}-note` : undefined,
      })}
      {note && (
        <p id={`${id}-note`} className={`text-sm ${error ? 'text-error font-semibold' : 'text-quiet'}`}>
          {note}
        </p>
      )}
    </div>
  );
}
