/** Follows what has the focus outside of dialogs: a field that takes it as a dialog opens is faster than the dialog. */
let last: HTMLElement | null = null;

if (typeof document !== 'undefined')
  document.addEventListener('focusin', (event) => {
    if (event.target instanceof HTMLElement && !event.target.closest('[role="dialog"]')) last = event.target;
  });

/** Gives the focus back. What had it may be drawn anew or gone meanwhile: then to the marked row, or to what the view shows. */
export function giveFocusBack(): void {
  const to =
    last?.isConnected && last !== document.body
      ? last
      : document.querySelector<HTMLElement>('[data-active-row="true"], [data-line][tabindex="0"], main');
  to?.focus({ preventScroll: true });
}

/**
 * For what closes and would give the focus back a moment later: on a slow machine the next key may have come before,
 * and who has walked on keeps the focus.
 */
export function leaveFocusWhereTaken(event: Event): void {
  const now = document.activeElement;
  if (now !== null && now !== document.body) event.preventDefault();
}
