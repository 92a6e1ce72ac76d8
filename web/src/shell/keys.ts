import { useEffect, useLayoutEffect, useRef } from 'react';

/** What a key does in a view, and how the help names it. */
export interface KeyAction {
  key: string;
  does: string;
  run: () => void;
  /** It changes something, which readers may not. */
  changes?: true;
}

/** The keys of the views that are open now, for the help. The innermost view comes last and wins. */
const layers: { current: readonly KeyAction[] }[] = [];

export function keysNow(): readonly KeyAction[] {
  return layers.flatMap((layer) => layer.current.filter(isForThem));
}

/** As the gate says who is signed in. */
const isForThem = (action: KeyAction) => !action.changes || document.documentElement.dataset['role'] !== 'READER';

function isWriting(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

/** What answers a key itself wherever it is focused: a link follows Enter, a button is pressed, a menu is walked through. */
const ANSWERS: Readonly<Record<string, string>> = {
  Enter: 'a[href], button, summary, [role="button"], [role="link"], [role="menuitem"], [role="option"], [role="tab"]',
  ' ': 'button, summary, [role="button"], [role="checkbox"], [role="switch"], [role="radio"], [role="menuitem"]',
  ...Object.fromEntries(
    ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'Home', 'End'].map((key) => [
      key,
      '[role="tab"], [role="radio"], [role="slider"], [role="menuitem"], [role="option"]',
    ]),
  ),
};

function answersItself(target: EventTarget | null, key: string): boolean {
  const selector = ANSWERS[key];
  return selector !== undefined && target instanceof Element && target.closest(selector) !== null;
}

/** While a dialog, a menu or a list is open, its own keys are the only ones. */
function isBusy(): boolean {
  return document.querySelector('[role="dialog"], [role="alertdialog"], [role="menu"], [role="listbox"]') !== null;
}

/** Binds keys while the component is shown. Nothing happens while somebody writes in a field. */
export function useKeys(actions: readonly KeyAction[]): void {
  const layer = useRef(actions);
  useLayoutEffect(() => {
    layer.current = actions;
  });
  useEffect(() => {
    layers.push(layer);
    const pressed = (event: KeyboardEvent) => {
      if (
        event.defaultPrevented ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        isWriting(event.target) ||
        answersItself(event.target, event.key) ||
        isBusy()
      )
        return;
      const action = layer.current.find((a) => a.key === event.key && isForThem(a));
      if (action) {
        event.preventDefault();
        // Whoever walks along the rows has left the button before: the next Enter is the row's.
        if (
          event.key.startsWith('Arrow') &&
          event.target instanceof HTMLElement &&
          answersItself(event.target, 'Enter')
        )
          event.target.blur();
        action.run();
      }
    };
    window.addEventListener('keydown', pressed);
    return () => {
      layers.splice(layers.indexOf(layer), 1);
      window.removeEventListener('keydown', pressed);
    };
  }, []);
}

const GO_WITHIN_MS = 1200;

/** "g" and then a letter goes along the line of work. */
export function useGo(go: Readonly<Record<string, () => void>>): void {
  const latest = useRef(go);
  useLayoutEffect(() => {
    latest.current = go;
  });
  useEffect(() => {
    let since = 0;
    const pressed = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isWriting(event.target) || isBusy()) return;
      if (event.key === 'g') {
        since = event.timeStamp;
      } else if (event.timeStamp - since < GO_WITHIN_MS && since > 0) {
        since = 0;
        const action = latest.current[event.key];
        if (action) {
          event.preventDefault();
          event.stopImmediatePropagation();
          action();
        }
      }
    };
    // Before the single keys, so that "g b" does not also make a base.
    window.addEventListener('keydown', pressed, { capture: true });
    return () => window.removeEventListener('keydown', pressed, { capture: true });
  }, []);
}
