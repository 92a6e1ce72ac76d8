import { useSyncExternalStore } from 'react';

/** How much room a row of a list takes; the person chooses, the browser remembers. */
export type Density = 'roomy' | 'compact';
const KEY = 'yarrowmark.density';
const listeners = new Set<() => void>();

function chosen(): Density {
  return localStorage.getItem(KEY) === 'compact' ? 'compact' : 'roomy';
}

/** For what the style sheet does by itself. */
export function followDensity(): void {
  document.documentElement.dataset['density'] = chosen();
}

export function chooseDensity(density: Density): void {
  localStorage.setItem(KEY, density);
  followDensity();
  listeners.forEach((listener) => listener());
}

export function useDensity(): Density {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, chosen);
}
