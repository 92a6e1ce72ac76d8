import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, useNavigate } from '@tanstack/react-router';
import { api, Problem, value, type Schemas } from '../../api/client.ts';
import { Opening } from '../../shell/Opening.tsx';
import { DraftNote, useDraft } from '../../unsent/draft.tsx';
import { Empty, Ready } from '../../ui/states.tsx';
import { firstFacts, fromFacts, type Entry, type FactRow, type toBody } from '../fact/fact-rows.ts';
import { FactEditor, useVocabulary } from '../fact/FactEditor.tsx';

type ConfigurationPage = Schemas['ConfigurationPage'];
const route = getRouteApi('/shelf/configure');

/** A new configuration of a unit: from nothing, or copied from another one with some facts changed. */
export function ConfigureView() {
  const { unit, from } = route.useSearch();
  const vocabulary = useVocabulary();
  const parent = useQuery({
    queryKey: ['configuration', from],
    queryFn: () => value(api.GET('/api/configurations/{id}', { params: { path: { id: from! } } })),
    enabled: from !== undefined,
  });
  if (unit === undefined)
    return (
      <Empty title="Which unit?">
        A configuration belongs to a unit. Open a model on the shelf and choose "new configuration" there.
      </Empty>
    );
  return (
    <Ready query={vocabulary} what="the vocabulary">
      {(entries) =>
        from === undefined ? (
          <Form unit={unit} entries={entries} />
        ) : (
          <Ready query={parent} what="the configuration to copy">
            {(page) => <Form unit={unit} entries={entries} parent={page} />}
          </Ready>
        )
      }
    </Ready>
  );
}

function Form({ unit, entries, parent }: { unit: number; entries: readonly Entry[]; parent?: ConfigurationPage }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const draft = useDraft<{ rows: FactRow[]; name: string }>(
    parent ? `copy of configuration ${parent.configuration.id}` : `configuration of unit ${unit}`,
    { rows: parent ? fromFacts(parent.facts, entries) : firstFacts(entries), name: '' },
  );
  const [rows, setRows] = draft.field('rows');
  const [name, setName] = draft.field('name');
  const save = useMutation({
    mutationFn: ({ facts, name }: { facts: ReturnType<typeof toBody>; name: string }) =>
      value(
        api.POST('/api/units/{unitId}/configurations', {
          params: { path: { unitId: unit } },
          body: { ...(parent ? { parentId: parent.configuration.id } : {}), ...(name ? { name } : {}), facts },
        }),
      ),
    onSuccess: (page) => {
      draft.forget();
      queries.setQueryData(['configuration', page.configuration.id], page);
      void queries.invalidateQueries({ queryKey: ['model'] });
      void queries.invalidateQueries({ queryKey: ['fact-values'] });
      void navigate({
        to: '/shelf/configurations/$configurationId',
        params: { configurationId: String(page.configuration.id) },
        replace: true,
      });
    },
  });
  const same = save.error instanceof Problem ? save.error.body.configurationId : undefined;
  return (
    <FactEditor
      rows={rows}
      onRows={setRows}
      name={name}
      onName={setName}
      vocabulary={entries}
      saveWords={parent ? 'Save the copy' : 'Save the configuration'}
      error={save.error}
      busy={save.isPending}
      onSave={(facts, name) => save.mutate({ facts, name })}
      onCancel={() => window.history.back()}
    >
      <Opening
        title={parent ? `Copy of ${parent.configuration.name}` : 'New configuration'}
        sentence={
          parent ? (
            <>
              Of the {parent.configuration.maker} {parent.configuration.model}, {parent.configuration.unit}.{' '}
              {parent.sessions > 0 &&
                'It was measured, so its own facts stay as they are; what you save is a new configuration under it. '}
              Change what is different now; it is called by what you change.
            </>
          ) : (
            'Every fact that can move a score. What is left empty is not known, and can be detected at the bench.'
          )
        }
      />
      <DraftNote draft={draft} />
      {same !== undefined && (
        <button
          type="button"
          className="button"
          onClick={() =>
            void navigate({ to: '/shelf/configurations/$configurationId', params: { configurationId: String(same) } })
          }
        >
          Open the one with these facts
        </button>
      )}
    </FactEditor>
  );
}
