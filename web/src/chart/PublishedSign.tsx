/** The sign of a score that somebody else published: an open quotation square, unlike any mark of own readings. */
export function PublishedSign({ size = 12 }: { size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 12 12"
      role="img"
      aria-label="published elsewhere"
      className="inline-block shrink-0 self-center"
    >
      <rect x="1" y="1" width="10" height="10" fill="none" stroke="var(--ink-3)" strokeDasharray="2 1.6" />
      <path d="M4 5.2v2M7.4 5.2v2" stroke="var(--ink-3)" strokeWidth="1.6" />
    </svg>
  );
}
