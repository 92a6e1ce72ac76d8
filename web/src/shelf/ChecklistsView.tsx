import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, Problem, value, type Schemas } from '../api/client.ts';
import { deviceClass } from '../format/format.ts';
import { Opening } from '../shell/Opening.tsx';
import { DraftNote, useDraft } from '../unsent/draft.tsx';
import { Ready, Failed } from '../ui/states.tsx';
import { ConditionsPart } from './part/ConditionsPart.tsx';

type Checklist = Schemas['Checklist'];
const MOST = 40;

/** What to do before the first run, for each class of device. The device page shows it; the session keeps what was ticked. */
export function ChecklistsView() {
  const lists = useQuery({ queryKey: ['checklists'], queryFn: () => value(api.GET('/api/checklists')) });
  return (
    <>
      <Opening
        title="Checklists"
        sentence="What to do before the first run. A device shows the list of its class, and the session keeps what was ticked and by whom."
      />
      <Ready query={lists} what="the checklists">
        {(all) => (
          <div className="gap-x-10 sm:columns-2">
            {all.map((list) => (
              <List key={list.deviceClass} list={list} />
            ))}
          </div>
        )}
      </Ready>
      <ConditionsPart />
    </>
  );
}

function List({ list }: { list: Checklist }) {
  const queries = useQueryClient();
  const draft = useDraft<{ text: string | null; seen: readonly string[] }>(`checklist ${list.deviceClass}`, {
    text: null,
    seen: [],
  });
  const { text, seen } = draft.value;
  const setText = (next: string | null) =>
    draft.set(next === null ? { text: null, seen: [] } : { text: next, seen: text === null ? list.items : seen });
  const save = useMutation({
    mutationFn: (known: readonly string[]) =>
      value(
        api.PUT('/api/checklists/{deviceClass}', {
          params: { path: { deviceClass: list.deviceClass } },
          body: { seen: [...known], items: lines(text ?? '') },
        }),
      ),
    onSuccess: (all) => {
      queries.setQueryData(['checklists'], all);
      setText(null);
    },
  });
  const theirs =
    save.error instanceof Problem && save.error.code === 'changed-meanwhile' && Array.isArray(save.error.body.now)
      ? (save.error.body.now as string[])
      : null;
  return (
    <section className="mb-6 break-inside-avoid">
      <div className="flex items-baseline border-b border-hair pb-0.5">
        <h2>For a {deviceClass(list.deviceClass)}</h2>
        {text === null && (
          <button
            data-changes
            className="small link ml-auto"
            aria-label={`Edit the list for a ${deviceClass(list.deviceClass)}`}
            onClick={() => setText(list.items.join('\n'))}
          >
            edit
          </button>
        )}
      </div>
      {text === null ? (
        <ol className="list-decimal pl-6">
          {list.items.map((item, i) => (
            <li key={i} className="border-b border-hair-2 py-1">
              {item}
            </li>
          ))}
          {list.items.length === 0 && <p className="small -ml-6 py-1">Nothing to do first.</p>}
        </ol>
      ) : (
        <div
          role="group"
          onKeyDown={(e) => {
            if (e.key === 'Escape') setText(null);
            if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) save.mutate(seen);
          }}
        >
          <DraftNote draft={draft} />
          <textarea
            className="field"
            aria-label={`One line for each thing to do with a ${deviceClass(list.deviceClass)}`}
            rows={Math.max(5, lines(text).length + 1)}
            autoFocus
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
          {lines(text).length > MOST && (
            <p className="text-plum">
              A list has {MOST} lines at most; this one has {lines(text).length}.
            </p>
          )}
          {theirs && (
            <div className="my-2 border-l-2 border-gold pl-3">
              <p>Theirs:</p>
              <ol className="list-decimal pl-5">
                {theirs.map((t, i) => (
                  <li key={i}>{t}</li>
                ))}
              </ol>
            </div>
          )}
          <Failed of={save} />
          <p className="mt-1 flex gap-2">
            {theirs ? (
              <button className="button" onClick={() => save.mutate(theirs)}>
                Keep mine instead of theirs
              </button>
            ) : (
              <button
                className="button button-main"
                disabled={save.isPending || lines(text).length > MOST}
                onClick={() => save.mutate(seen)}
              >
                Save
              </button>
            )}
            <button
              className="button"
              onClick={() => {
                setText(null);
                save.reset();
                void queries.invalidateQueries({ queryKey: ['checklists'] });
              }}
            >
              {theirs ? 'Keep theirs' : 'Cancel'}
            </button>
          </p>
        </div>
      )}
    </section>
  );
}

function lines(text: string): string[] {
  return text
    .split('\n')
    .map((line) => line.trim().slice(0, 200))
    .filter((line) => line !== '');
}
