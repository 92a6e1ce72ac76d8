import type { ReactNode } from 'react';
import { Failed } from '../ui/states.tsx';
import { DraftNote } from './draft.tsx';

/**
 * A form on a sheet of its own inside of a view: what was typed before, its fields, what went wrong, and its buttons. Escape
 * leaves it and Ctrl Enter saves, from any field.
 */
export function FormSheet({
  draft,
  make,
  save,
  ready = true,
  onCancel,
  beside,
  hint,
  label,
  children,
}: {
  draft: Parameters<typeof DraftNote>[0]['draft'];
  /** What is done with it. */
  make: { mutate: () => void; isPending: boolean; isError: boolean; error: Error | null };
  /** The words of the main button. */
  save: string;
  ready?: boolean;
  onCancel: () => void;
  /** More buttons, between the main one and Cancel. */
  beside?: ReactNode;
  hint?: ReactNode;
  label?: string;
  children: ReactNode;
}) {
  return (
    <form
      className="my-3 border-y border-hair bg-sheet px-4 py-3"
      aria-label={label}
      onKeyDown={(e) => {
        if (e.key === 'Escape') onCancel();
        if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) e.currentTarget.requestSubmit();
      }}
      onSubmit={(e) => {
        e.preventDefault();
        if (ready && !make.isPending) make.mutate();
      }}
    >
      <DraftNote draft={draft} />
      {children}
      <Failed of={make} className="mt-2" />
      <p className="mt-3 flex flex-wrap items-center gap-2">
        <button data-changes className="button button-main" disabled={make.isPending || !ready}>
          {save}
        </button>
        {beside}
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
        <span className="small text-ink-3">
          <span className="pointer-coarse:hidden">
            <kbd>Ctrl</kbd> <kbd>Enter</kbd> saves.
          </span>{' '}
          {hint}
        </span>
      </p>
    </form>
  );
}

/** A field with its words above it. @param span how many of the grid's four columns it takes */
export function Labelled({ words, span, children }: { words: ReactNode; span?: 2; children: ReactNode }) {
  return (
    <label className={span && 'sm:col-span-2'}>
      <span className="small">{words}</span>
      {children}
    </label>
  );
}
