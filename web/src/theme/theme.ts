import { readStored, writeStored, type Preference } from '../device/stored.ts';

export const THEMES = ['birch', 'dusk', 'glare'] as const;
export type Theme = (typeof THEMES)[number];

const THEME: Preference<Theme> = {
  key: 'lauta-theme',
  parse: (text) => THEMES.find((theme) => theme === text) ?? 'birch',
  format: (theme) => theme,
};

export function storedTheme(): Theme {
  return readStored(THEME);
}

export function applyTheme(theme: Theme): void {
  writeStored(THEME, theme);
  document.documentElement.dataset['theme'] = theme;
  const paper = getComputedStyle(document.documentElement).getPropertyValue('--color-base-100');
  document.querySelector('meta[name=theme-color]')?.setAttribute('content', paper.trim());
}
