import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, value } from '../api/client.ts';
import { TEST_GROUPS, testGroup, type TestGroup } from '../format/format.ts';
import { DraftNote, useDraft } from '../unsent/draft.tsx';
import { howMeasured } from './how.ts';

interface Typed {
  name: string;
  version: string;
  mode: string;
  group: TestGroup;
  text: string;
}

const NOTHING: Typed = { name: '', version: '1', mode: '', group: 'EVERYDAY', text: '' };

/** A suite in a minute: a name, a version, and a list with one test a line. How each line is read is shown at once. */
export function NewSuite({ onDone }: { onDone: () => void }) {
  const queries = useQueryClient();
  const draft = useDraft<Typed>('suite', NOTHING);
  const { name, version, mode, group, text } = draft.value;
  const set = (change: Partial<Typed>) => draft.set({ ...draft.value, ...change });
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const wait = setTimeout(() => setSettled(text), 200);
    return () => clearTimeout(wait);
  }, [text]);
  const read = useQuery({
    queryKey: ['suite-lines', settled, group],
    queryFn: ({ signal }) => value(api.POST('/api/suites/read', { body: { text: settled, group }, signal })),
    enabled: settled.trim() !== '',
    placeholderData: keepPreviousData,
  });
  const make = useMutation({
    mutationFn: () =>
      value(api.POST('/api/suites', { body: { name, version, group, text, ...(mode.trim() ? { mode } : {}) } })),
    onSuccess: () => {
      draft.forget();
      for (const queryKey of [['tests'], ['suite-versions']]) void queries.invalidateQueries({ queryKey });
      onDone();
    },
  });
  const list = settled.trim() !== '' ? read.data : undefined;
  return (
    <form
      className="my-3 border-y border-hair bg-sheet px-4 py-3"
      onKeyDown={(e) => {
        if (e.key === 'Escape') onDone();
        if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) make.mutate();
      }}
      onSubmit={(e) => {
        e.preventDefault();
        make.mutate();
      }}
    >
      <DraftNote draft={draft} />
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-4">
        <label>
          <span className="small">Suite</span>
          <input
            className="field"
            required
            autoFocus
            maxLength={120}
            value={name}
            onChange={(e) => set({ name: e.target.value })}
          />
        </label>
        <label>
          <span className="small">Version</span>
          <input
            className="field"
            required
            maxLength={40}
            value={version}
            onChange={(e) => set({ version: e.target.value })}
          />
        </label>
        <label>
          <span className="small">Mode, if it has several</span>
          <input
            className="field"
            maxLength={120}
            value={mode}
            placeholder="64 bit, off screen"
            onChange={(e) => set({ mode: e.target.value })}
          />
        </label>
        <label>
          <span className="small">Group of its tests</span>
          <select className="field" value={group} onChange={(e) => set({ group: e.target.value as TestGroup })}>
            {TEST_GROUPS.map((g) => (
              <option key={g} value={g}>
                {testGroup(g)}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="mt-2 grid gap-x-6 sm:grid-cols-2">
        <label>
          <span className="small">
            One test a line: name, unit, more or less, and a group where it is another one. Also: check; choice poor
            &lt; fair &lt; good; curve over B; frame times; capped; part. A line that begins with + is a further number
            of the test above it
          </span>
          <textarea
            className="field"
            rows={7}
            required
            spellCheck={false}
            placeholder={
              'Sequential read, MB/s, more, Storage\nLantern valley, fps, more\n+ 1 % low, fps, more\nReport export, s, less\nSurface temperature, °C, less, Body\nWakes from sleep, check\nRead over size, MB/s, more, curve over B'
            }
            value={text}
            onChange={(e) => set({ text: e.target.value })}
          />
        </label>
        <div aria-live="polite">
          {list?.tests.map((t) => (
            <p key={t.line} className={`border-b border-hair-2 py-0.5 ${t.further ? 'pl-4' : ''}`}>
              {t.further && '+ '}
              {t.name}{' '}
              <span className="small">
                {howMeasured(t)}, {testGroup(t.group)}
                {t.scale === 'DIFFERENCE' && t.kind === 'NUMBER' && ', compared by differences'}
              </span>
            </p>
          ))}
          {list?.refused.map((r) => (
            <p key={r.line} className="border-b border-hair-2 py-0.5 text-plum">
              Line {r.line}, "{r.text}": {r.reason}
            </p>
          ))}
        </div>
      </div>
      {make.isError && (
        <p role="alert" className="mt-2 text-plum">
          {make.error.message}
        </p>
      )}
      <p className="mt-2 flex items-center gap-2">
        <button className="button button-main" disabled={make.isPending || !list || list.refused.length > 0}>
          Save suite
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
