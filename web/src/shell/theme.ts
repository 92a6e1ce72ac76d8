export type Theme = 'light' | 'dark';
const KEY = 'yarrowmark.theme';

const system = () => window.matchMedia('(prefers-color-scheme: dark)');

/** The theme the person chose, else the system's. */
export function currentTheme(): Theme {
  const chosen = localStorage.getItem(KEY);
  if (chosen === 'light' || chosen === 'dark') return chosen;
  return system().matches ? 'dark' : 'light';
}

function apply(): void {
  document.documentElement.dataset['theme'] = currentTheme();
}

/** Shows the theme now, and whenever the system changes its mind. */
export function followTheme(): void {
  apply();
  system().addEventListener('change', apply);
}

export function chooseTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  apply();
}
