import type { Ref } from 'react';

/** Takes a file for a button that clicks it; the same file may be chosen again. */
export function FileInput({
  ref,
  label,
  accept,
  isCamera = false,
  onFile,
}: {
  ref: Ref<HTMLInputElement>;
  label: string;
  accept: string;
  /** Opens the phone's own camera where there is one. */
  isCamera?: boolean;
  onFile: (file: File) => void;
}) {
  return (
    <input
      ref={ref}
      type="file"
      accept={accept}
      {...(isCamera ? { capture: 'environment' as const } : {})}
      aria-label={label}
      className="hidden"
      onChange={({ currentTarget }) => {
        const file = currentTarget.files?.[0];
        currentTarget.value = '';
        if (file) onFile(file);
      }}
    />
  );
}
