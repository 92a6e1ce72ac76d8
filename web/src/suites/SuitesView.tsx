import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { testGroup } from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import { Ready } from '../ui/states.tsx';
import { CommandSuite } from './CommandSuite.tsx';
import { howMeasured } from './how.ts';
import { NewSuite } from './NewSuite.tsx';
import { suites, usedFirst, useMeasured, withWords, type SuiteOfTests } from './suites.ts';

/** A suite with more tests is folded until somebody looks for one. */
const MANY = 12;
import { ToolSuite } from './ToolSuite.tsx';
import { UsualSpreads } from './UsualSpreads.tsx';

/** The catalogue: every suite with its tests, built in or the reviewer's own. */
export function SuitesView() {
  const [making, setMaking] = useState<'list' | 'tool' | 'commands' | null>(null);
  const [words, setWords] = useState('');
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')) });
  const versions = useQuery({ queryKey: ['suite-versions'], queryFn: () => value(api.GET('/api/suite-versions')) });
  const measured = useMeasured();
  useKeys(making ? [] : [{ key: 'n', does: 'New suite', changes: true, run: () => setMaking('list') }]);
  return (
    <>
      <Opening
        title="Suites"
        sentence="Every test there are scores for. Scores are compared inside one version and mode of a suite, and nowhere else, unless somebody joined two and said why."
      >
        <button data-changes className="button" onClick={() => setMaking('tool')}>
          From a tool’s output
        </button>
        <button data-changes className="button" onClick={() => setMaking('commands')}>
          Suite of commands
        </button>
        <button data-changes className="button" onClick={() => setMaking('list')}>
          New suite <kbd>n</kbd>
        </button>
      </Opening>
      {making === 'list' && <NewSuite onDone={() => setMaking(null)} />}
      {making === 'commands' && <CommandSuite onDone={() => setMaking(null)} />}
      {making === 'tool' && <ToolSuite onDone={() => setMaking(null)} />}
      <Ready query={tests} what="the suites">
        {(rows) => (
          <>
            <input
              className="field mb-3 w-72"
              placeholder="any words of a suite or test"
              aria-label="Words of a suite or test"
              maxLength={120}
              value={words}
              onChange={(event) => setWords(event.target.value)}
            />
            <div className="gap-x-10 lg:columns-2">
              {withWords(usedFirst(suites(rows), measured), words).map((suite) => {
                const joined = versions.data?.find((v) => v.id === suite.id)?.joined;
                return (
                  <section key={suite.id} className="mb-6 break-inside-avoid">
                    <h2 className="flex items-baseline border-b border-hair pb-0.5">
                      <Link
                        to="/suites/$versionId"
                        params={{ versionId: String(suite.id) }}
                        className="hover:underline"
                      >
                        {suite.name}
                      </Link>
                      <span className="small ml-auto font-sans font-normal">
                        {suite.builtIn && 'built in'}
                        {suite.tests.some((t) => measured.has(t.id)) &&
                          (suite.builtIn ? ', has results' : 'has results')}
                        {joined && `compared with ${joined.intoName}`}
                      </span>
                    </h2>
                    {words.trim() === '' && (suite.builtIn || suite.tests.length > MANY) ? (
                      <details>
                        <summary className="small cursor-pointer py-1.5">
                          {suite.tests.length} tests{suite.builtIn && ' that run by themselves'}
                          {suite.builtIn && !suite.tests.some((t) => measured.has(t.id)) && ', none of them run yet'}
                        </summary>
                        <Tests suite={suite} />
                      </details>
                    ) : (
                      <Tests suite={suite} />
                    )}
                  </section>
                );
              })}
            </div>
            <UsualSpreads />
          </>
        )}
      </Ready>
    </>
  );
}

function Tests({ suite }: { suite: SuiteOfTests }) {
  return (
    <>
      {suite.tests
        .filter((t) => !t.retired)
        .map((t) => (
          <p key={t.id} className="flex items-baseline gap-3 border-b border-hair-2 py-1.5">
            <span className="font-semibold">{t.name}</span>
            <span className="small">{testGroup(t.group)}</span>
            <span className="small ml-auto max-w-[55%] truncate text-right">{howMeasured(t.metrics[0]!)}</span>
          </p>
        ))}
    </>
  );
}
