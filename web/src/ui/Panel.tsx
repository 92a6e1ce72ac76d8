import { Dialog } from 'radix-ui';
import { useRef, type ReactNode } from 'react';

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
  // It is opened by a key or from a row as often as by a button, so whoever had the focus gets it back.
  const before = useRef<Element | null>(null);
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-black/25" />
        <Dialog.Content
          className={`fixed z-30 border-hair bg-sheet p-5 ${place}`}
          aria-describedby={undefined}
          onOpenAutoFocus={() => {
            before.current = document.activeElement;
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            giveBack(before.current);
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

/** What was focused may be drawn anew or gone meanwhile: then the focus goes to the marked row, or to what the view shows. */
function giveBack(before: Element | null): void {
  const to =
    before instanceof HTMLElement && before.isConnected && before !== document.body
      ? before
      : document.querySelector<HTMLElement>('[data-active-row="true"], [data-line][tabindex="0"], main');
  to?.focus({ preventScroll: true });
}
