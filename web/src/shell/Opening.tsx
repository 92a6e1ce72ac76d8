import type { ReactNode } from 'react';
import { useTitle } from './title.ts';

/** How every view opens: its name, the sentence that says exactly what is shown, and what can be done at once. */
export function Opening({
  title,
  tab,
  sentence,
  children,
}: {
  title: string;
  /** What the browser's tab says, where that is more than the title. */
  tab?: string;
  sentence: ReactNode;
  children?: ReactNode;
}) {
  useTitle(tab ?? title);
  return (
    <div className="mb-3">
      <div className="flex items-center justify-between gap-x-6 gap-y-2 max-lg:flex-wrap">
        <h1>{title}</h1>
        {children && <div className="-my-1 flex min-w-0 flex-wrap items-center gap-2 lg:shrink-0">{children}</div>}
      </div>
      <p className="mt-0.5 text-[17px] max-sm:mt-1.5 max-sm:text-[16px] leading-relaxed text-ink-2">{sentence}</p>
    </div>
  );
}
