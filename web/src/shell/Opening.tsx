import type { ReactNode } from 'react';

/** How every view opens: its name, the sentence that says exactly what is shown, and what can be done at once. */
export function Opening({ title, sentence, children }: { title: string; sentence: ReactNode; children?: ReactNode }) {
  return (
    <div className="mb-3 flex items-start justify-between gap-x-6 gap-y-2 max-sm:flex-wrap">
      <div className="min-w-0">
        <h1>{title}</h1>
        <p className="mt-0.5 text-[17px] leading-relaxed text-ink-2">{sentence}</p>
      </div>
      {children && <div className="flex shrink-0 gap-2 pt-1">{children}</div>}
    </div>
  );
}
