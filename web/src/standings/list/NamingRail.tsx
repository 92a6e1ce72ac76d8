import { useRef, useState } from 'react';
import { Rail } from '../../chart/Rail.tsx';
import { nearest, type Tick } from '../../chart/ticks.ts';

interface Props extends React.ComponentProps<typeof Rail> {
  at: readonly Tick[];
  nameOf: (id: number) => string;
  onPick: (id: number) => void;
  /** The row's own, which a finger means: only a mouse names a tick before it clicks. */
  own: number;
  /** Chosen by the keyboard: a position in the ticks. */
  cursor?: number | undefined;
}

/** A rail whose ticks say what they are under the pointer, and go on the table with a click. */
export function NamingRail({ at, nameOf, onPick, own, cursor, ...rail }: Props) {
  const holder = useRef<HTMLSpanElement>(null);
  const [pointed, setPointed] = useState(-1);
  const shown = pointed >= 0 ? pointed : (cursor ?? -1);
  const tick = at[shown];
  const find = (event: React.PointerEvent | React.MouseEvent) =>
    nearest(at, event.clientX - holder.current!.getBoundingClientRect().left);
  return (
    // By keyboard the row's own keys name its ticks.
    // eslint-disable-next-line jsx-a11y/no-static-element-interactions
    <span
      ref={holder}
      className="relative block"
      data-rail
      onPointerMove={(event) => event.pointerType !== 'touch' && setPointed(find(event))}
      onPointerLeave={() => setPointed(-1)}
      onClick={() => onPick(at[pointed]?.id ?? own)}
      style={tick ? { cursor: 'pointer' } : undefined}
    >
      <Rail {...rail} named={tick?.x} />
      {tick && (
        <span
          role={pointed >= 0 ? undefined : 'status'}
          className="pointer-events-none absolute bottom-full z-10 rounded border border-hair bg-sheet px-1.5 py-px text-[12px] whitespace-nowrap shadow"
          style={tick.x < rail.scale.width / 2 ? { left: tick.x } : { right: rail.scale.width - tick.x }}
        >
          {nameOf(tick.id)}
        </span>
      )}
    </span>
  );
}
