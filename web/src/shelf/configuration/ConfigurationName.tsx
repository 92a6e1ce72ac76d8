import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { api, value, type Schemas } from '../../api/client.ts';
import { FieldLine } from '../part/FieldLine.tsx';

type ConfigurationPage = Schemas['ConfigurationPage'];

export function Name({ page, onPage }: { page: ConfigurationPage; onPage: (page: ConfigurationPage) => void }) {
  const { id, name, retired } = page.configuration;
  const navigate = useNavigate();
  const queries = useQueryClient();
  const retire = useMutation({
    mutationFn: () =>
      value(api.PUT('/api/configurations/{id}/retired', { params: { path: { id } }, body: { retired: !retired } })),
    onSuccess: onPage,
  });
  const remove = useMutation({
    mutationFn: () => value(api.DELETE('/api/configurations/{id}', { params: { path: { id } } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['model'] });
      void navigate({ to: '/shelf/models/$modelId', params: { modelId: String(page.configuration.modelId) } });
    },
  });
  return (
    <section className="mt-6">
      <h2 className="border-b border-hair pb-0.5">This configuration</h2>
      <FieldLine
        field={{ name: 'name', label: 'Name', value: name, shown: name, example: '' }}
        onSaved={onPage}
        save={(seen, text) =>
          value(
            api.PUT('/api/configurations/{id}/name', {
              params: { path: { id } },
              body: { from: seen ?? '', to: text },
            }),
          )
        }
      />
      <p className="mt-2 flex gap-4">
        <button data-changes className="small link" onClick={() => retire.mutate()}>
          {retired ? 'Bring it back' : 'Retire it'}
        </button>
        {page.sessions === 0 && page.mergedInto === undefined && (
          <button data-changes className="small link" onClick={() => remove.mutate()}>
            Remove
          </button>
        )}
      </p>
      {(retire.error ?? remove.error) && (
        <p role="alert" className="text-plum">
          {(retire.error ?? remove.error)!.message}
        </p>
      )}
    </section>
  );
}
