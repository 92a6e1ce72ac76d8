import fontFile from '@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2?url';
import { useRef, type ReactNode } from 'react';
import { useMutation } from '@tanstack/react-query';
import { escaped, framed } from './figure.ts';
import { dataAddress, drawn, save } from './take.ts';

interface Props {
  /** Of the files, without what they end with. */
  name: string;
  caption: string;
  csv: () => string;
  children: ReactNode;
}

const [WIDTH, HEIGHT, MARGIN, CAPTION] = [1920, 1080, 60, 90];

/** A figure of the screen with the ways to take it along: as it is drawn, in the colours of the sheet it is on. */
export function TakeFigure({ name, caption, csv, children }: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const take = useMutation({
    mutationFn: async (kind: 'svg' | 'png' | 'transparent' | 'csv') => {
      const file = name.replace(/[^\w-]+/g, '-').toLowerCase();
      if (kind === 'csv') return save(new Blob([csv()], { type: 'text/csv;charset=utf-8' }), `${file}.csv`);
      const svg = standing(holder.current!.querySelector('svg')!, caption, await dataAddress(fontFile), kind !== 'transparent');
      return kind === 'svg' ? save(new Blob([svg], { type: 'image/svg+xml' }), `${file}.svg`) : save(await drawn(svg, WIDTH, HEIGHT), `${file}${kind === 'transparent' ? '-transparent' : ''}.png`);
    },
  });
  return (
    <div ref={holder}>
      {children}
      <p className="small flex gap-3">
        Take along: {([['svg', 'SVG'], ['png', 'PNG'], ['transparent', 'PNG without paper'], ['csv', 'CSV']] as const).map(([kind, words]) => <button key={kind} className="link" disabled={take.isPending} aria-label={`${words} of ${name}`} onClick={() => take.mutate(kind)}>{words}</button>)}
        {take.isError && <span role="alert" className="text-plum">{take.error.message}</span>}
      </p>
    </div>
  );
}

/** The same picture for itself: 1920 by 1080, its colours resolved, its font inside. */
function standing(shown: SVGSVGElement, caption: string, font: string, paper: boolean): string {
  const style = getComputedStyle(document.documentElement);
  const box = shown.viewBox.baseVal;
  const scale = Math.min((WIDTH - 2 * MARGIN) / box.width, (HEIGHT - 2 * MARGIN - CAPTION) / box.height);
  const inner = new XMLSerializer().serializeToString(shown).replace(/^<svg[^>]*>/, '').replace(/<\/svg>$/, '').replace(/var\((--[\w-]+)\)/g, (_, token: string) => style.getPropertyValue(token).trim());
  return framed(paper ? style.getPropertyValue('--paper').trim() : null, font, [
    `<text x="${MARGIN}" y="${MARGIN + 34}" font-size="34" font-weight="600" fill="${style.getPropertyValue('--ink').trim()}">${escaped(caption)}</text>`,
    `<g transform="translate(${((WIDTH - box.width * scale) / 2).toFixed(1)} ${MARGIN + CAPTION}) scale(${scale.toFixed(4)})">${inner}</g>`,
  ]);
}
