import fontFile from '@fontsource-variable/source-sans-3/files/source-sans-3-latin-wght-normal.woff2?url';
import { useMutation } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import type { Schemas } from '../api/client.ts';
import { markColour, markPath } from '../chart/Mark.tsx';
import { useTable } from '../shell/table-store.ts';
import { CopyButton } from './CopyButton.tsx';
import { comparisonCsv } from './csv.ts';
import { figure, figureOfSeveral, PAINTS } from './figure.ts';
import type { Section } from './order.ts';
import { slotsOf } from './slots.ts';
import { dataAddress, drawn, save } from './take.ts';

type Format = { kind: 'svg' | 'png'; paint: keyof typeof PAINTS } | { kind: 'csv' };
const [WIDTH, HEIGHT] = [1920, 1080];

/** The comparison to take along: as a picture, as a table, as a sentence. */
export function TakeAlong({ comparison, parts, side }: { comparison: Schemas['Comparison']; parts: readonly Section[]; side: number }) {
  const several = comparison.sides.length > 1;
  const slots = slotsOf(useTable(), [comparison.base.id, ...comparison.sides.map((s) => s.configuration.id)]);
  const make = useMutation({
    mutationFn: async (format: Format) => {
      const name = `${several ? `${comparison.sides.length} configurations` : comparison.sides[side]!.configuration.model} against ${comparison.base.model}`.replace(/[^\w-]+/g, '-').toLowerCase();
      if (format.kind === 'csv') return save(new Blob([comparisonCsv(comparison)], { type: 'text/csv;charset=utf-8' }), `${name}.csv`);
      const font = await dataAddress(fontFile);
      const svg = several ? figureOfSeveral(comparison, parts, comparison.sides.map((s) => markOf(slots(s.configuration.id))), PAINTS[format.paint], font) : figure(comparison, parts, side, PAINTS[format.paint], font);
      const file = `${name}-${format.paint}.${format.kind}`;
      return save(format.kind === 'svg' ? new Blob([svg], { type: 'image/svg+xml' }) : await drawn(svg, WIDTH, HEIGHT), file);
    },
  });
  const sentence = comparison.sides[side]?.overall?.sentence;
  return (
    <Popover.Root>
      <Popover.Trigger className="button">Take along</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="menu w-64" align="end" sideOffset={6} aria-label="Take along">
          {(['light', 'dark', 'transparent'] as const).map((paint) => (
            <p key={paint} className="flex items-baseline justify-between px-2.5 py-1">
              <span>Picture, {paint}</span>
              <span className="flex gap-3">{(['svg', 'png'] as const).map((kind) => <button key={kind} className="link" aria-label={`${kind.toUpperCase()}, ${paint}`} disabled={make.isPending} onClick={() => make.mutate({ kind, paint })}>{kind.toUpperCase()}</button>)}</span>
            </p>
          ))}
          <p className="flex items-baseline justify-between px-2.5 py-1"><span>Table</span><button className="link" disabled={make.isPending} onClick={() => make.mutate({ kind: 'csv' })}>CSV</button></p>
          {sentence !== undefined && <p className="flex items-baseline justify-between gap-3 border-t border-hair-2 px-2.5 pt-1.5 pb-1"><span className="small">{sentence}</span><CopyButton text={sentence} what="the overall as a sentence" /></p>}
          {make.isError && <p role="alert" className="px-2.5 text-plum">{make.error.message}</p>}
          {make.data && <p role="status" className="small px-2.5">Saved as {make.data}.</p>}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** The table's mark with its colour of now, for a picture that takes no style sheet along. */
function markOf(slot: number | null): { path: string; colour: string } {
  const token = /--[\w-]+/.exec(markColour(slot))![0];
  return { path: markPath(slot, 7), colour: getComputedStyle(document.documentElement).getPropertyValue(token).trim() };
}
