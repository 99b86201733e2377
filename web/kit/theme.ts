import { createContext, useContext } from 'react';

export type Theme = 'chalk' | 'dim';

/** The theme in use and how to change it. */
export const ThemeContext = createContext<{ theme: Theme; toggle: () => void }>({
  theme: 'chalk',
  toggle: () => undefined,
});

export const useTheme = () => useContext(ThemeContext);

const KEY = 'zugluft.theme';

export function storedTheme(): Theme {
  try {
    return localStorage.getItem(KEY) === 'dim' ? 'dim' : 'chalk';
  } catch {
    return 'chalk';
  }
}

export function storeTheme(theme: Theme): void {
  document.documentElement.dataset['theme'] = theme;
  try {
    localStorage.setItem(KEY, theme);
  } catch {
    // without storage the theme lasts until the page closes
  }
}
