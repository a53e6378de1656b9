import { useState } from 'react';
import { THEMES, applyTheme, storedTheme, type Theme } from './theme.ts';

const WORDS: Record<Theme, string> = { birch: 'Birch', dusk: 'Dusk', glare: 'Glare' };

export function ThemeChoice() {
  const [theme, setTheme] = useState(storedTheme);
  return (
    <fieldset className="flex items-center gap-0.5">
      <legend className="sr-only">Light</legend>
      {THEMES.map((one) => (
        <button
          key={one}
          type="button"
          aria-pressed={theme === one}
          className={`btn btn-sm px-2 ${theme === one ? 'btn-primary' : 'btn-ghost'}`}
          onClick={() => {
            applyTheme(one);
            setTheme(one);
          }}
        >
          {WORDS[one]}
        </button>
      ))}
    </fieldset>
  );
}
