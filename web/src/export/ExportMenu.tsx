import { useMutation } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { CopyButton } from '../ui/CopyButton.tsx';
import { HEIGHT, WIDTH, type PaintName } from './page.ts';
import { fontAddress } from './font.ts';
import { drawn, save } from './save-file.ts';
import { leaveFocusWhereTaken } from '../ui/focused-before.ts';
import { Failed } from '../ui/states.tsx';

/** Longer names of files are cut off by some systems. */
const LONGEST = 100;

type Format = { kind: 'svg' | 'png' | 'png4k'; paint: PaintName } | { kind: 'csv' } | { kind: 'html' };

interface Props {
  /** Of the files, without what they end with. */
  name: string;
  draw: (paint: PaintName, font: string) => string;
  csv: () => string;
  /** A table to put into any page. */
  html?: (() => string) | undefined;
  sentence?: string | undefined;
  quiet?: boolean;
}

/** A figure or a table to take along: as a picture, as a file of its numbers, as a sentence. */
export function ExportMenu({ name, draw, csv, html, sentence, quiet = false }: Props) {
  const make = useMutation({
    mutationFn: async (format: Format) => {
      const file = name
        .replace(/[^\w-]+/g, '-')
        .toLowerCase()
        .slice(0, LONGEST)
        .replace(/-+$/, '');
      if (format.kind === 'csv') return save(new Blob([csv()], { type: 'text/csv;charset=utf-8' }), `${file}.csv`);
      if (format.kind === 'html') return save(new Blob([html!()], { type: 'text/html;charset=utf-8' }), `${file}.html`);
      const svg = draw(format.paint, await fontAddress());
      return save(
        format.kind === 'svg'
          ? new Blob([svg], { type: 'image/svg+xml' })
          : await drawn(
              svg,
              format.kind === 'png4k' ? 2 * WIDTH : WIDTH,
              format.kind === 'png4k' ? 2 * HEIGHT : HEIGHT,
            ),
        format.kind === 'png4k' ? `${file}-${format.paint}-3840.png` : `${file}-${format.paint}.${format.kind}`,
      );
    },
  });
  return (
    <Popover.Root>
      <Popover.Trigger className={quiet ? 'small link' : 'button'} aria-label={quiet ? `Export: ${name}` : undefined}>
        {quiet ? 'export' : 'Export'}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          onCloseAutoFocus={leaveFocusWhereTaken}
          className="menu w-64"
          align="end"
          sideOffset={6}
          aria-label="Export"
        >
          {(['light', 'dark', 'transparent'] as const).map((paint) => (
            <p key={paint} className="flex items-baseline justify-between px-2.5 py-1">
              <span>Picture, {paint}</span>
              <span className="flex gap-3">
                {(['svg', 'png', 'png4k'] as const).map((kind) => (
                  <button
                    key={kind}
                    className="link"
                    aria-label={kind === 'png4k' ? `PNG with 3840 × 2160, ${paint}` : `${kind.toUpperCase()}, ${paint}`}
                    title={kind === 'png' ? '1920 × 1080' : kind === 'png4k' ? '3840 × 2160' : undefined}
                    disabled={make.isPending}
                    onClick={() => make.mutate({ kind, paint })}
                  >
                    {kind === 'png4k' ? '4K' : kind.toUpperCase()}
                  </button>
                ))}
              </span>
            </p>
          ))}
          <p className="flex items-baseline justify-between px-2.5 py-1">
            <span>Table</span>
            <span className="flex gap-3">
              <button className="link" disabled={make.isPending} onClick={() => make.mutate({ kind: 'csv' })}>
                CSV
              </button>
              {html && (
                <button
                  className="link"
                  disabled={make.isPending}
                  onClick={() => make.mutate({ kind: 'html' })}
                  aria-label="HTML, a table to put into a page"
                >
                  HTML
                </button>
              )}
            </span>
          </p>
          {sentence !== undefined && (
            <p className="flex items-baseline justify-between gap-3 border-t border-hair-2 px-2.5 pt-1.5 pb-1">
              <span className="small">{sentence}</span>
              <CopyButton text={sentence} what="the overall as a sentence" />
            </p>
          )}
          <Failed of={make} className="px-2.5" />
          {make.data && (
            <p role="status" className="small px-2.5">
              Saved as {make.data}.
            </p>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
