import { useRef, type ReactNode } from 'react';
import { screenFigure } from './screen-figure.ts';
import { ExportMenu } from './ExportMenu.tsx';

/** A picture on the screen that can be taken along. */
export function ExportFigure({
  name,
  caption,
  csv,
  children,
}: {
  name: string;
  caption: string;
  csv: () => string;
  children: ReactNode;
}) {
  const holder = useRef<HTMLDivElement>(null);
  return (
    <div ref={holder}>
      {children}
      <ExportMenu
        quiet
        name={name}
        csv={csv}
        draw={(paint, font) => screenFigure(holder.current!.querySelector('svg')!, caption, paint, font)}
      />
    </div>
  );
}
