import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, value } from '../api/client.ts';
import { DraftNote, useDraft } from '../unsent/draft.tsx';
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
    <form
      className="my-3 border-y border-hair bg-sheet px-4 py-3"
      aria-label="Suite of commands"
      onKeyDown={(e) => {
        if (e.key === 'Escape') onDone();
        if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) e.currentTarget.requestSubmit();
      }}
      onSubmit={(e) => {
        e.preventDefault();
        make.mutate();
      }}
    >
      <DraftNote draft={draft} />
      <p className="small mb-2 max-w-[90ch]">
        The runner carries them out on a computer and times them. They run as whoever started it there, who reads every
        word of them first and agrees; a command that changed is asked about again.
      </p>
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-4">
        <label className="sm:col-span-2">
          <span className="small">Suite</span>
          <input
            className="field"
            required
            autoFocus
            maxLength={120}
            placeholder="Everyday programs"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
        </label>
        <label>
          <span className="small">Version</span>
          <input
            className="field"
            required
            maxLength={40}
            value={version}
            onChange={(e) => setVersion(e.target.value)}
          />
        </label>
        <label>
          <span className="small">Begin with an example</span>
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
        </label>
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
      {make.isError && (
        <p role="alert" className="mt-2 text-plum">
          {make.error.message}
        </p>
      )}
      <p className="mt-3 flex flex-wrap items-center gap-2">
        <button className="button button-main" disabled={make.isPending}>
          Save suite
        </button>
        <button type="button" className="button" onClick={() => setTests([...tests, newCommand()])}>
          One more command
        </button>
        <button type="button" className="button" onClick={onDone}>
          Cancel
        </button>
        <span className="small text-ink-3">
          <kbd>Ctrl</kbd> <kbd>Enter</kbd> saves
        </span>
      </p>
    </form>
  );
}
