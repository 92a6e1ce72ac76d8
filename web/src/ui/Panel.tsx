import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { giveFocusBack } from './focused-before.ts';

/** A sheet laid over the view: in the middle, or along the right side for reading beside a list. */
export function Panel({
  open,
  onClose,
  title,
  side = false,
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  side?: boolean;
  children: ReactNode;
}) {
  const place = side
    ? 'right-0 top-0 h-dvh w-[min(440px,100vw)] overflow-y-auto border-l'
    : 'left-1/2 top-[12vh] w-[min(560px,94vw)] max-h-[76vh] -translate-x-1/2 overflow-y-auto rounded-xl border';
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-black/25" />
        <Dialog.Content
          className={`fixed z-30 border-hair bg-sheet p-5 ${place}`}
          aria-describedby={undefined}
          onCloseAutoFocus={(event) => {
            // It is opened by a key or from a row as often as by a button.
            event.preventDefault();
            giveFocusBack();
          }}
        >
          <div className="flex items-start justify-between gap-4">
            <Dialog.Title asChild>
              <h2>{title}</h2>
            </Dialog.Title>
            <Dialog.Close className="small link">Close</Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
