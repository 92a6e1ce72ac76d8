import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import { day, type DeviceClass } from '../format/format.ts';
import { named } from '../format/named.ts';
import { Failed } from './states.tsx';

type Unfinished = Schemas['UnfinishedSession'];
const SHOWN = 2;

/** Sessions that would count here had they been finished: named, and one press from counting. */
export function UnfinishedNote({ of, within }: { of?: readonly number[]; within?: readonly DeviceClass[] }) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const [said, setSaid] = useState<readonly Unfinished[]>([]);
  const found = useQuery({ queryKey: ['unfinished'], queryFn: () => value(api.GET('/api/sessions/unfinished')) });
  const count = useMutation({
    mutationFn: ({ one, counts }: { one: Unfinished; counts: boolean }) =>
      value(api.PUT('/api/sessions/{id}/counted', { params: { path: { id: one.id } }, body: { counts } })),
    onSuccess: (_, { one, counts }) => {
      setSaid((before) => (counts ? [...before, one] : before.filter((s) => s.id !== one.id)));
      void changed(queries, 'scores');
    },
  });
  const here = (found.data ?? []).filter(
    (u) =>
      (of?.includes(u.configuration.id) ?? true) &&
      (within === undefined || within.length === 0 || within.includes(u.configuration.deviceClass)) &&
      !said.some((s) => s.id === u.id),
  );
  if (here.length === 0 && said.length === 0) return null;
  const shown = open ? here : here.slice(0, SHOWN);
  return (
    <div role="note" className="small mb-2 max-w-3xl border-l-2 border-gold pl-3 print:hidden">
      {said.map((one) => (
        <p key={one.id} role="status">
          {nameOf(one)} counts now.{' '}
          <button
            data-changes
            className="link"
            disabled={count.isPending}
            onClick={() => count.mutate({ one, counts: false })}
          >
            Undo
          </button>
        </p>
      ))}
      {shown.map((one) => (
        <p key={one.id}>
          {nameOf(one)} was never finished ({progress(one)}) and does not count.{' '}
          <Link to="/ledger" search={{ session: one.id }} className="link">
            Look at its runs
          </Link>
          <span data-changes>
            {', or '}
            <button
              className="link"
              disabled={count.isPending}
              aria-label={`Count it: ${nameOf(one)}`}
              onClick={() => count.mutate({ one, counts: true })}
            >
              count it
            </button>
          </span>
        </p>
      ))}
      {here.length > shown.length && (
        <button className="link" onClick={() => setOpen(true)}>
          and {here.length - shown.length} more
        </button>
      )}
      <Failed of={count} />
    </div>
  );
}

function nameOf(one: Unfinished): string {
  return `${named(one.configuration)}: the session of ${day(one.startedAt)}`;
}

function progress(one: Unfinished): string {
  return one.planned === undefined
    ? `${one.measured} ${one.measured === 1 ? 'test' : 'tests'} run`
    : `${one.measured} of ${one.planned} tests run`;
}
