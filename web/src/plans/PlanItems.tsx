import type { ReactNode } from 'react';
import type { SuiteShare } from './draft.ts';

/** More tests than this are shown as suites first. */
const SHOWN = 14;

/** The tests of a plan; a long list is folded under the suites it is made of. */
export function PlanItems({ suites, children }: { suites: readonly SuiteShare[]; children: ReactNode }) {
  const tests = suites.reduce((sum, s) => sum + s.tests, 0);
  if (tests <= SHOWN) return <ol className="mt-1">{children}</ol>;
  return (
    <>
      <ul className="mt-1">
        {suites.map((s) => (
          <li key={s.name} className="flex items-baseline border-b border-hair-2 py-0.5">
            <span className="font-semibold">{s.name}</span>
            <span className="small ml-auto">{s.tests} tests</span>
          </li>
        ))}
      </ul>
      <details className="mt-1">
        <summary className="small cursor-pointer">All {tests} tests in their order</summary>
        <ol>{children}</ol>
      </details>
    </>
  );
}
