import type { ReactNode } from 'react';

/** How a list is sorted. */
export interface Sorting<K extends string> {
  by: K;
  falling: boolean;
}

/** What a click on a column's heading asks for: that column, and the other way round where it is sorted by it already. */
export function nextSorting<K extends string>(now: Sorting<K>, by: K, fallingFirst = false): Sorting<K> {
  return { by, falling: now.by === by ? !now.falling : fallingFirst };
}

/** A heading that sorts its column. */
export function SortHeader<K extends string>({
  by,
  now,
  onSort,
  right,
  fallingFirst,
  className = '',
  children,
}: {
  by: K;
  now: Sorting<K>;
  onSort: (next: Sorting<K>) => void;
  right?: boolean;
  /** Whether the largest, or the newest, is what is wanted first. */
  fallingFirst?: boolean;
  className?: string;
  children: ReactNode;
}) {
  const on = now.by === by;
  return (
    <th
      className={`${right ? 'text-right' : ''} ${className}`}
      aria-sort={on ? (now.falling ? 'descending' : 'ascending') : 'none'}
    >
      <SortButton on={on} falling={now.falling} onClick={() => onSort(nextSorting(now, by, fallingFirst))}>
        {children}
      </SortButton>
    </th>
  );
}

export function SortButton({
  on,
  falling,
  onClick,
  children,
}: {
  on: boolean;
  falling: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <button className="said hover:text-ink hover:underline" title="Sort by this" onClick={onClick}>
      {children}
      <span aria-hidden="true" className={on ? 'text-gold-ink' : 'invisible'}>
        {falling ? ' ↓' : ' ↑'}
      </span>
    </button>
  );
}
