import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import type { SuiteOfTests } from './suites.ts';
import { Failed } from '../ui/states.tsx';

/** The versions of a suite, oldest first: results of all but the newest are called stale. */
export function OrderPart({ suite }: { suite: SuiteOfTests }) {
  const queries = useQueryClient();
  const versions = useQuery({ queryKey: ['suite-versions'], queryFn: () => value(api.GET('/api/suite-versions')) });
  const move = useMutation({
    mutationFn: (earlier: boolean) =>
      value(api.PUT('/api/suite-versions/{id}/order', { params: { path: { id: suite.id } }, body: { earlier } })),
    onSuccess: () => {
      void changed(queries, 'catalogue');
    },
  });
  const own = versions.data?.find((v) => v.id === suite.id);
  const all = versions.data?.filter((v) => v.suite === own?.suite) ?? [];
  if (!own || all.length < 2) return null;
  const at = all.indexOf(own);
  return (
    <section className="mb-5">
      <h2 className="border-b border-hair pb-0.5">Versions, oldest first</h2>
      <ol>
        {all.map((v) => (
          <li key={v.id} className="flex items-baseline gap-3 border-b border-hair-2 py-1.5">
            {v.id === suite.id ? (
              <b className="font-semibold">{v.version}</b>
            ) : (
              <Link to="/suites/$versionId" params={{ versionId: String(v.id) }} className="hover:underline">
                {v.version}
              </Link>
            )}
            {v.id === suite.id && !suite.builtIn && (
              <span className="small ml-auto flex gap-3">
                <button
                  data-changes
                  className="link"
                  disabled={at === 0 || move.isPending}
                  onClick={() => move.mutate(true)}
                >
                  earlier
                </button>
                <button
                  data-changes
                  className="link"
                  disabled={at === all.length - 1 || move.isPending}
                  onClick={() => move.mutate(false)}
                >
                  later
                </button>
              </span>
            )}
          </li>
        ))}
      </ol>
      <Failed of={move} />
    </section>
  );
}
