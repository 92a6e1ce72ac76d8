import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useReader } from '../../access/access-context.ts';
import { api, value } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';
import { CONDITIONS, takeWords, type Take } from '../../format/takes.ts';
import { Ready, Failed } from '../../ui/states.tsx';

/** The lab's list: what was measured under these conditions does not count until somebody asks for it. */
export function ConditionsPart() {
  const queries = useQueryClient();
  const reader = useReader();
  const list = useQuery({ queryKey: ['conditions'], queryFn: () => value(api.GET('/api/conditions')) });
  const change = useMutation({
    mutationFn: (notCounted: Take[]) => value(api.PUT('/api/conditions', { body: { notCounted } })),
    onSuccess: (now) => {
      queries.setQueryData(['conditions'], now);
      void changed(queries, 'scores');
    },
  });
  return (
    <section className="mt-4 max-w-2xl">
      <h2 className="border-b border-hair pb-0.5">Sessions that do not count by default</h2>
      <p className="small mt-1">
        A configuration measured under another condition is not the same measurement. Such sessions stay in the ledger;
        comparisons and standings take them when they are asked for. On battery only counts as another condition where
        the same configuration was measured on mains as well. A session was never finished where it was stopped, or
        nothing came for a day, before each of its tests had a run.
      </p>
      <Ready query={list} what="the list of conditions">
        {({ notCounted }) => (
          <ul className="mt-1">
            {CONDITIONS.map((c) => (
              <li key={c}>
                <label className="flex items-baseline gap-2 py-0.5">
                  <input
                    type="checkbox"
                    className="accent-leaf"
                    checked={notCounted.includes(c)}
                    disabled={change.isPending || reader}
                    onChange={(e) =>
                      change.mutate(e.target.checked ? [...notCounted, c] : notCounted.filter((other) => other !== c))
                    }
                  />
                  measured {takeWords(c)}
                </label>
              </li>
            ))}
          </ul>
        )}
      </Ready>
      <Failed of={change} />
    </section>
  );
}
