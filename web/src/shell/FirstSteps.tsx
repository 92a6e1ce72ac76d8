import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import type { ReactNode } from 'react';
import { api, value } from '../api/client.ts';

/** The line of work in five steps, for a shelf with nothing on it. It goes by itself once there is something to rank. */
export function FirstSteps() {
  const models = useQuery({
    queryKey: ['models', 'first'],
    queryFn: () => value(api.GET('/api/models', { params: { query: { size: 1 } } })),
  });
  const readings = useQuery({
    queryKey: ['ledger', 'first'],
    queryFn: () => value(api.GET('/api/ledger', { params: { query: { size: 1 } } })),
  });
  const now = (readings.data?.total ?? 0) > 0 ? 4 : (models.data?.total ?? 0) > 0 ? 2 : 1;
  const steps: readonly ReactNode[] = [
    <>
      <Link to="/bench" className="link">
        Make a code on the bench
      </Link>{' '}
      and open its address on the device: it makes its own model and configuration. Or note a model on the{' '}
      <Link to="/shelf" className="link">
        shelf
      </Link>
      .
    </>,
    <>
      Choose a{' '}
      <Link to="/plans" className="link">
        plan
      </Link>
      , and start it on the device; or choose “Type scores” on a configuration, for what another tool printed.
    </>,
    <>
      Each finished run is a reading in the{' '}
      <Link to="/ledger" className="link">
        ledger
      </Link>
      , with the exact hardware and software it was made on.
    </>,
    <>
      Measure a second configuration, put both on the table, and{' '}
      <Link to="/compare" className="link">
        compare
      </Link>{' '}
      them.
    </>,
    <>
      The{' '}
      <Link to="/standings" className="link">
        standings
      </Link>{' '}
      rank them, with places as intervals where noise does not allow one number.
    </>,
  ];
  return (
    <ol className="mt-3 max-w-[640px]">
      {steps.map((step, i) => (
        <li
          key={i}
          aria-current={i + 1 === now ? 'step' : undefined}
          className="flex gap-3 border-b border-hair-2 py-2 aria-[current=step]:bg-sheet"
        >
          <span className="w-6 font-title text-[19px]">{i + 1}</span>
          <span className={i + 1 === now ? '' : 'text-ink-2'}>
            {step}
            {i + 1 < now && <span className="pill ml-2">done</span>}
            {i + 1 === now && (
              <span className="pill ml-2" data-tone="wait">
                now
              </span>
            )}
          </span>
        </li>
      ))}
    </ol>
  );
}
