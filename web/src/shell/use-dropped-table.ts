import { useNavigate } from '@tanstack/react-router';
import { useEffect } from 'react';
import { offer, pastedFile, SPREADSHEET } from './dropped-file.ts';

const FIELDS = 'input, textarea, select, [contenteditable]';

/** A spreadsheet that is dropped on any view, or cells that are pasted where nothing is being typed, are read as a table. */
export function useDroppedTable(): void {
  const navigate = useNavigate();
  useEffect(() => {
    const take = (file: File) => {
      offer(file);
      void navigate({ to: '/ledger/import' });
    };
    const over = (event: DragEvent) => {
      if (event.dataTransfer?.types.includes('Files')) event.preventDefault();
    };
    const drop = (event: DragEvent) => {
      // A place of its own that takes files has taken it.
      if (event.defaultPrevented) return;
      const file = event.dataTransfer?.files[0];
      if (!file) return;
      event.preventDefault();
      if (SPREADSHEET.test(file.name)) take(file);
    };
    const paste = (event: ClipboardEvent) => {
      if (event.defaultPrevented || (event.target as Element | null)?.closest?.(FIELDS)) return;
      const text = event.clipboardData?.getData('text/plain') ?? '';
      const file = text.includes('\t') ? pastedFile(text) : null;
      if (file) take(file);
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    window.addEventListener('paste', paste);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
      window.removeEventListener('paste', paste);
    };
  }, [navigate]);
}
