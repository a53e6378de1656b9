import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { ThemeChoice } from '../theme/ThemeChoice.tsx';
import { RuledEdge } from './RuledEdge.tsx';

/** Pages outside of an event. */
export function PlainFrame({
  title,
  wide = false,
  children,
}: {
  title: string;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <div className="min-h-dvh">
      <header className="relative">
        <div className="flex h-14 items-center justify-between px-4 pb-3 sm:px-6">
          <Link to="/" className="text-xl font-extrabold">
            Lauta
          </Link>
          <ThemeChoice />
        </div>
        <RuledEdge hours={[]} nowShare={null} />
      </header>
      <main className={`mx-auto px-4 py-8 ${wide ? 'max-w-4xl' : 'max-w-lg'}`}>
        <h1 className="mb-4">{title}</h1>
        {children}
      </main>
    </div>
  );
}
