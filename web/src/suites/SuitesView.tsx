import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { direction, TEST_GROUPS, testGroup, unitName, type TestGroup } from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import { Ready } from '../ui/states.tsx';

type TestRow = Schemas['TestRow'];

/** The catalogue: every suite with its tests, built in or the reviewer's own. */
export function SuitesView() {
  const [making, setMaking] = useState(false);
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')) });
  useKeys(making ? [] : [{ key: 'n', does: 'New suite', run: () => setMaking(true) }]);
  return (
    <>
      <Opening title="Suites" sentence="Every test there are scores for. Scores are compared inside one version and mode of a suite, and nowhere else.">
        <button className="button" onClick={() => setMaking(true)}>New suite <kbd>n</kbd></button>
      </Opening>
      {making && <NewSuite onDone={() => setMaking(false)} />}
      <Ready query={tests} what="the suites">
        {(rows) => (
          <div className="gap-x-10 lg:columns-2">
            {suites(rows).map((suite) => (
              <section key={suite.name} className="mb-6 break-inside-avoid">
                <h2 className="border-b border-hair pb-0.5">{suite.name}</h2>
                {suite.tests.map((t) => (
                  <p key={t.id} className="flex items-baseline gap-3 border-b border-hair-2 py-1.5">
                    <span className="font-semibold">{t.name}</span>
                    <span className="small">{testGroup(t.group)}</span>
                    <span className="small ml-auto whitespace-nowrap">{t.metrics.map((m) => `${unitName(m.unit)}, ${direction(m.direction)}`).join('; ')}</span>
                  </p>
                ))}
              </section>
            ))}
          </div>
        )}
      </Ready>
    </>
  );
}

export function suites(rows: readonly TestRow[]): { name: string; tests: TestRow[] }[] {
  const names = [...new Set(rows.map((t) => `${t.suite} ${t.version}`))].sort((a, b) => a.localeCompare(b, 'en'));
  return names.map((name) => ({ name, tests: rows.filter((t) => `${t.suite} ${t.version}` === name) }));
}

/** A suite in a minute: a name, a version, and a list with one test a line. How each line is read is shown at once. */
function NewSuite({ onDone }: { onDone: () => void }) {
  const queries = useQueryClient();
  const [name, setName] = useState('');
  const [version, setVersion] = useState('1');
  const [mode, setMode] = useState('');
  const [group, setGroup] = useState<TestGroup>('EVERYDAY');
  const [text, setText] = useState('');
  const [settled, setSettled] = useState('');
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
    mutationFn: () => value(api.POST('/api/suites', { body: { name, version, group, text, ...(mode.trim() ? { mode } : {}) } })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['tests'] });
      onDone();
    },
  });
  const list = settled.trim() !== '' ? read.data : undefined;
  return (
    <form className="my-3 border-y border-hair bg-sheet px-4 py-3" onKeyDown={(e) => { if (e.key === 'Escape') onDone(); if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) make.mutate(); }}
      onSubmit={(e) => { e.preventDefault(); make.mutate(); }}>
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-4">
        <label><span className="small">Suite</span><input className="field" required autoFocus maxLength={120} value={name} onChange={(e) => setName(e.target.value)} /></label>
        <label><span className="small">Version</span><input className="field" required maxLength={40} value={version} onChange={(e) => setVersion(e.target.value)} /></label>
        <label><span className="small">Mode, if it has several</span><input className="field" maxLength={120} value={mode} placeholder="64 bit, off screen" onChange={(e) => setMode(e.target.value)} /></label>
        <label><span className="small">Group of its tests</span>
          <select className="field" value={group} onChange={(e) => setGroup(e.target.value as TestGroup)}>{TEST_GROUPS.map((g) => <option key={g} value={g}>{testGroup(g)}</option>)}</select>
        </label>
      </div>
      <div className="mt-2 grid gap-x-6 sm:grid-cols-2">
        <label><span className="small">One test a line: name, unit, more or less, and a group where it is another one</span>
          <textarea className="field" rows={7} required spellCheck={false} placeholder={'Sequential read, MB/s, more, Storage\nReport export, s, less\nSurface temperature, °C, less, Body'} value={text} onChange={(e) => setText(e.target.value)} />
        </label>
        <div aria-live="polite">
          {list?.tests.map((t) => <p key={t.line} className="border-b border-hair-2 py-0.5">{t.name} <span className="small">{unitName(t.unit)}, {direction(t.direction)}, {testGroup(t.group)}{t.scale === 'DIFFERENCE' && ', compared by differences'}</span></p>)}
          {list?.refused.map((r) => <p key={r.line} className="border-b border-hair-2 py-0.5 text-plum">Line {r.line}, "{r.text}": {r.reason}</p>)}
        </div>
      </div>
      {make.isError && <p role="alert" className="mt-2 text-plum">{make.error.message}</p>}
      <p className="mt-2 flex items-center gap-2">
        <button className="button button-main" disabled={make.isPending || !list || list.refused.length > 0}>Put it in the catalogue</button>
        <button type="button" className="button" onClick={onDone}>Cancel</button>
        <span className="small text-ink-3"><kbd>Ctrl</kbd> <kbd>Enter</kbd> saves</span>
      </p>
    </form>
  );
}
