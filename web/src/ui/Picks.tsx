import type { ReactNode } from 'react';

/** A question that is answered by one tap of a wet thumb. */
export function Picks({ label, children }: { label: string; children: ReactNode }) {
  return (
    <fieldset>
      <legend className="text-quiet">{label}</legend>
      <div className="flex flex-wrap gap-2">{children}</div>
    </fieldset>
  );
}

export function Pick({ isOn, onPick, children }: { isOn: boolean; onPick: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      className={`btn h-16 min-w-16 ${isOn ? 'btn-primary' : ''}`}
      onClick={onPick}
    >
      {children}
    </button>
  );
}
