import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, value } from '../api/client.ts';
import { useDraft } from '../unsent/draft.tsx';
import { FormSheet, Labelled } from '../unsent/FormSheet.tsx';
import { commandOf, newCommand, typedOf, type TypedCommand } from './command-draft.ts';
import { CommandForm } from './CommandForm.tsx';

/** A suite whose tests are commands that the runner times. */
export function CommandSuite({ onDone }: { onDone: () => void }) {
  const queries = useQueryClient();
  const examples = useQuery({
    queryKey: ['command-examples'],
    queryFn: () => value(api.GET('/api/suites/commands/examples')),
    staleTime: Infinity,
  });
  const draft = useDraft<{ name: string; version: string; tests: TypedCommand[] }>('suite of commands', {
    name: '',
    version: '1',
    tests: [newCommand()],
  });
  const [name, setName] = draft.field('name');
  const [version, setVersion] = draft.field('version');
  const [tests, setTests] = draft.field('tests');
  const make = useMutation({
    mutationFn: async () =>
      value(
        api.POST('/api/suites/commands', {
          body: {
            name,
            version,
            tests: tests.map((t) => ({ name: t.name, group: t.group, command: commandOf(t) })),
          },
        }),
      ),
    onSuccess: () => {
      for (const queryKey of [['tests'], ['suite-versions']]) void queries.invalidateQueries({ queryKey });
      draft.forget();
      onDone();
    },
  });
  /** An example takes the place of a command that nothing was typed into. */
  const add = (more: TypedCommand[]) => setTests([...tests.filter((t) => t.name !== '' || t.run.text !== ''), ...more]);
  return (
    <FormSheet
      draft={draft}
      make={make}
      save="Save suite"
      onCancel={onDone}
      beside={
        <button type="button" className="button" onClick={() => setTests([...tests, newCommand()])}>
          One more command
        </button>
      }
      label="Suite of commands"
    >
      <p className="small mb-2 max-w-[90ch]">
        The runner carries them out on a computer and times them. They run under the account that started it there, once
        its user has read every word of them and agreed; a command that changed is asked about again.
      </p>
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-4">
        <Labelled span={2} words="Suite">
          <input
            className="field"
            required
            autoFocus
            maxLength={120}
            placeholder="Everyday programs"
            value={name}
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
        <Labelled words="Begin with an example">
          <select
            className="field"
            value=""
            onChange={(e) => {
              const all = examples.data ?? [];
              const chosen = e.target.value === 'all' ? all : all.slice(Number(e.target.value)).slice(0, 1);
              add(chosen.map((x) => typedOf(x.name, x.group, x.command)));
            }}
          >
            <option value="" disabled>
              choose
            </option>
            {examples.data?.map((x, i) => (
              <option key={x.name} value={i}>
                {x.name} (needs {x.needs})
              </option>
            ))}
            <option value="all">all of them</option>
          </select>
        </Labelled>
      </div>
      {tests.map((t, i) => (
        <CommandForm
          key={i}
          value={t}
          number={i + 1}
          onChange={(next) => setTests(tests.map((o, k) => (k === i ? next : o)))}
          onRemove={tests.length > 1 ? () => setTests(tests.filter((_, k) => k !== i)) : undefined}
        />
      ))}
    </FormSheet>
  );
}
