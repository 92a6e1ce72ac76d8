import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, value } from '../api/client.ts';
import { useDraft } from '../unsent/draft.tsx';
import { FormSheet, Labelled } from '../unsent/FormSheet.tsx';

/** A suite out of what a general-purpose tool prints: its tests and its reading rule in one step. */
export function ToolSuite({ onDone }: { onDone: () => void }) {
  const queries = useQueryClient();
  const tools = useQuery({
    queryKey: ['rule-tools'],
    queryFn: () => value(api.GET('/api/rules/tools')),
    staleTime: Infinity,
  });
  const draft = useDraft('suite of a tool', {
    key: 'time',
    name: '',
    version: '1',
    sample: '',
  });
  const [key, setKey] = draft.field('key');
  const [name, setName] = draft.field('name');
  const [version, setVersion] = draft.field('version');
  const [sample, setSample] = draft.field('sample');
  const tool = tools.data?.find((t) => t.key === key);
  const make = useMutation({
    mutationFn: () =>
      value(api.POST('/api/rules/tools/{key}/suite', { params: { path: { key } }, body: { name, version, sample } })),
    onSuccess: () => {
      for (const queryKey of [['tests'], ['suite-versions'], ['rules']]) void queries.invalidateQueries({ queryKey });
      draft.forget();
      onDone();
    },
  });
  return (
    <FormSheet
      draft={draft}
      make={make}
      save="Save suite"
      ready={sample.trim() !== '' && name.trim() !== ''}
      onCancel={onDone}
    >
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-4">
        <Labelled words="Tool">
          <select className="field" autoFocus value={key} onChange={(e) => setKey(e.target.value)}>
            {(tools.data ?? []).map((t) => (
              <option key={t.key} value={t.key}>
                {t.name}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled span={2} words="Suite, named for what is timed">
          <input
            className="field"
            required
            maxLength={120}
            value={name}
            placeholder="Compile of the plot viewer"
            onChange={(e) => setName(e.target.value)}
          />
        </Labelled>
        <Labelled words="Version">
          <input
            className="field"
            required
            maxLength={40}
            value={version}
            onChange={(e) => setVersion(e.target.value)}
          />
        </Labelled>
      </div>
      <label className="mt-2 block">
        <span className="small">
          What it printed
          {tool && (
            <>
              , from <code>{tool.how}</code>
            </>
          )}
          . Every number that is recognised becomes a test.
        </span>
        <textarea
          className="field font-mono text-[12px]"
          rows={7}
          required
          spellCheck={false}
          value={sample}
          placeholder={tool?.sample}
          onChange={(e) => setSample(e.target.value)}
        />
      </label>
      {tool && <p className="small mt-1">It is known to print: {tool.tests.join('; ')}.</p>}
    </FormSheet>
  );
}
