import type { ReactNode } from 'react';
import type { Tone } from '@lauta/words/tone';

const COLOUR: Record<Tone, string> = { clear: 'text-success', look: 'text-warning', fault: 'text-error' };

/** A tone never stands alone: ring, diamond or square, with its word. */
export function Signal({ tone, children }: { tone: Tone; children: ReactNode }) {
  return (
    <span className={`inline-flex items-center gap-1.5 text-sm font-bold ${COLOUR[tone]}`}>
      <svg viewBox="0 0 12 12" className="size-3 flex-none" aria-hidden="true">
        {tone === 'clear' && (
          <circle cx="6" cy="6" r="4.5" fill="none" stroke="currentColor" strokeWidth="2.5" />
        )}
        {tone === 'look' && <path d="M6 0 12 6 6 12 0 6Z" fill="currentColor" />}
        {tone === 'fault' && <path d="M1 1h10v10H1Z" fill="currentColor" />}
      </svg>
      <span>{children}</span>
    </span>
  );
}
