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
