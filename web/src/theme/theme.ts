export const THEMES = ['birch', 'dusk', 'glare'] as const;
export type Theme = (typeof THEMES)[number];

const KEY = 'lauta-theme';

export function storedTheme(): Theme {
  const stored = localStorage.getItem(KEY);
  return THEMES.find((theme) => theme === stored) ?? 'birch';
}

export function applyTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  document.documentElement.dataset['theme'] = theme;
  const paper = getComputedStyle(document.documentElement).getPropertyValue('--color-base-100');
  document.querySelector('meta[name=theme-color]')?.setAttribute('content', paper.trim());
}
