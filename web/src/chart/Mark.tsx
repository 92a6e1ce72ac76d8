/** The eight marks of the table: each a shape and a colour, so that colour alone never tells two apart. */
export const MARKS = 8;

const SHAPES: ((r: number) => string)[] = [
  (r) => `M${-r} 0a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`,
  (r) => `M${-0.9 * r} ${-0.9 * r}h${1.8 * r}v${1.8 * r}h${-1.8 * r}Z`,
  (r) => `M0 ${-1.15 * r}L${1.1 * r} ${0.85 * r}H${-1.1 * r}Z`,
  (r) => `M0 ${-1.25 * r}L${1.25 * r} 0L0 ${1.25 * r}L${-1.25 * r} 0Z`,
  (r) => `M0 ${1.15 * r}L${1.1 * r} ${-0.85 * r}H${-1.1 * r}Z`,
  (r) =>
    `M${-0.4 * r} ${-1.1 * r}h${0.8 * r}v${0.7 * r}h${0.7 * r}v${0.8 * r}h${-0.7 * r}v${0.7 * r}h${-0.8 * r}v${-0.7 * r}h${-0.7 * r}v${-0.8 * r}h${0.7 * r}Z`,
  (r) => `M${-0.55 * r} ${-r}h${1.1 * r}L${1.15 * r} 0L${0.55 * r} ${r}h${-1.1 * r}L${-1.15 * r} 0Z`,
  (r) => `M${-1.3 * r} ${-0.5 * r}h${2.6 * r}v${r}h${-2.6 * r}Z`,
];

/** @param slot 0 to 7, or null for something that is not on the table */
export function markColour(slot: number | null): string {
  return slot === null ? 'var(--ink)' : `var(--mark-${slot + 1})`;
}

export function markPath(slot: number | null, radius: number): string {
  return SHAPES[slot ?? 0]!(radius);
}

/** A mark on its own, in running text. */
export function MarkSign({ slot, size = 16 }: { slot: number; size?: number }) {
  return (
    <svg width={size} height={size} viewBox="-8 -8 16 16" aria-hidden="true" className="shrink-0">
      <path d={markPath(slot, 5)} fill={markColour(slot)} />
    </svg>
  );
}
