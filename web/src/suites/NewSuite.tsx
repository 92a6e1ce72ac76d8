import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useSettled } from '../ui/settled.ts';
import { api, value } from '../api/client.ts';
import { TEST_GROUPS, testGroup, type TestGroup } from '../format/format.ts';
import { useDraft } from '../unsent/draft.tsx';
import { FormSheet, Labelled } from '../unsent/FormSheet.tsx';
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
  const settled = useSettled(text, 200);
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
    <FormSheet
      draft={draft}
      make={make}
      save="Save suite"
      ready={settled !== text || !list?.refused.length}
      onCancel={onDone}
    >
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-4">
        <Labelled words="Suite">
          <input
            className="field"
            required
            autoFocus
            maxLength={120}
            value={name}
            onChange={(e) => set({ name: e.target.value })}
          />
        </Labelled>
        <Labelled words="Version">
          <input
            className="field"
            required
            maxLength={40}
            value={version}
            onChange={(e) => set({ version: e.target.value })}
          />
        </Labelled>
        <Labelled words="Mode, if it has several">
          <input
            className="field"
            maxLength={120}
            value={mode}
            placeholder="64 bit, off screen"
            onChange={(e) => set({ mode: e.target.value })}
          />
        </Labelled>
        <Labelled words="Group of its tests">
          <select className="field" value={group} onChange={(e) => set({ group: e.target.value as TestGroup })}>
            {TEST_GROUPS.map((g) => (
              <option key={g} value={g}>
                {testGroup(g)}
              </option>
            ))}
          </select>
        </Labelled>
      </div>
      <div className="mt-2 grid gap-x-6 sm:grid-cols-2">
        <Labelled words="One test a line: name, unit, more or less, and a group where it is another one. Also: check; choice poor &lt; fair &lt; good; curve over B; frame times; capped; part. A line that begins with + is a further number of the test above it">
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
        </Labelled>
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
    </FormSheet>
  );
}
