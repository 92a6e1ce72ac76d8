import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, value, type Schemas } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';
import { table } from '../../export/csv.ts';
import { save } from '../../export/save-file.ts';
import { count } from '../../format/format.ts';
import { tableActions } from '../../shell/table-store.ts';
import { SelectionBar } from '../../ui/SelectionBar.tsx';
import type { Selection } from '../../ui/use-selection.ts';

type Model = Schemas['ModelRow'];

/** What can be done with several models at once. */
export function SelectedModels({ selection, retired }: { selection: Selection<Model>; retired: boolean }) {
  const queries = useQueryClient();
  const retire = useMutation({
    mutationFn: async ({ models, to }: { models: readonly Model[]; to: boolean }) => {
      for (const m of models)
        await value(api.PUT('/api/models/{id}/retired', { params: { path: { id: m.id } }, body: { retired: to } }));
      return { models, to };
    },
    onSettled: () => {
      void changed(queries, 'shelf');
    },
    onSuccess: () => selection.clear(),
  });
  const lay = useMutation({
    mutationFn: async (models: readonly Model[]) => {
      const ids: number[] = [];
      for (const m of models) {
        const page = await value(api.GET('/api/models/{id}', { params: { path: { id: m.id } } }));
        const newest = page.units
          .flatMap((u) => u.configurations)
          .filter((c) => !c.retired)
          .sort((a, b) => b.id - a.id)[0];
        if (newest) ids.push(newest.id);
      }
      return ids;
    },
    onSuccess: (ids) => {
      tableActions.lay(ids);
      selection.clear();
    },
  });
  const done = retire.data;
  return (
    <>
      {done && selection.rows.length === 0 && (
        <p role="status" className="mt-1 border-l-2 border-gold py-0.5 pl-3">
          {count(done.models.length)} {done.models.length === 1 ? 'model was' : 'models were'}{' '}
          {done.to ? 'retired' : 'put back on the shelf'}.{' '}
          <button data-changes className="link" onClick={() => retire.mutate({ models: done.models, to: !done.to })}>
            Undo
          </button>
        </p>
      )}
      {(retire.error ?? lay.error) && (
        <p role="alert" className="text-plum">
          {(retire.error ?? lay.error)!.message}
        </p>
      )}
      <SelectionBar selection={selection} what={(n) => `${count(n)} ${n === 1 ? 'model' : 'models'} selected`}>
        <button className="button" disabled={lay.isPending} onClick={() => lay.mutate(selection.rows)}>
          Put on the table
        </button>
        <button
          className="button"
          onClick={() =>
            save(
              new Blob(
                [
                  table([
                    ['maker', 'model', 'class', 'released', 'price', 'currency', 'configurations'],
                    ...selection.rows.map((m) => [
                      m.maker,
                      m.name,
                      m.deviceClass.toLowerCase(),
                      m.released,
                      m.price,
                      m.currency,
                      m.configurations,
                    ]),
                  ]),
                ],
                { type: 'text/csv;charset=utf-8' },
              ),
              'models.csv',
            )
          }
        >
          Export CSV
        </button>
        <button
          data-changes
          className="button"
          disabled={retire.isPending}
          onClick={() => retire.mutate({ models: selection.rows, to: !retired })}
        >
          {retired ? 'Put back on the shelf' : 'Retire'}
        </button>
      </SelectionBar>
    </>
  );
}
