/** "+1.2", "−0.3". */
export function signed(value: number): string {
  return `${value >= 0 ? '+' : '−'}${Math.abs(value).toFixed(1)}`;
}

/** From the middle to the right what adds, to the left what takes away. @param share of the widest one, −1 to 1 */
export function ShareBar({ share }: { share: number }) {
  return (
    <svg viewBox="-50 0 100 9" preserveAspectRatio="none" height={9} width="100%" aria-hidden="true" className="block">
      <rect
        x={share >= 0 ? 0 : 48 * share}
        width={Math.abs(48 * share)}
        height={9}
        fill={share >= 0 ? 'var(--leaf)' : 'var(--plum)'}
      />
      <line x1={0} x2={0} y1={0} y2={9} stroke="var(--tick)" vectorEffect="non-scaling-stroke" />
    </svg>
  );
}
