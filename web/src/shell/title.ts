import { useEffect } from 'react';

/** The name of the page for tabs, history and screen readers: the view and its object. */
export function useTitle(title: string): void {
  useEffect(() => {
    document.title = `${title} · Yarrowmark`;
  }, [title]);
}
