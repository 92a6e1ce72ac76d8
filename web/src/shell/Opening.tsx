import type { ReactNode } from 'react';

/** How every view opens: its name, the sentence that says exactly what is shown, and what can be done at once. */
export function Opening({ title, sentence, children }: { title: string; sentence: ReactNode; children?: ReactNode }) {
  return (
    <div className="mb-3 flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
      <div>
        <h1>{title}</h1>
        <p className="mt-0.5 text-[17px] leading-relaxed text-ink-2">{sentence}</p>
      </div>
      {children && <div className="flex gap-2 pb-1">{children}</div>}
    </div>
  );
}
