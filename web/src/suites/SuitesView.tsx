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

import { ToolSuite } from './ToolSuite.tsx';
import { UsualSpreads } from './UsualSpreads.tsx';

/** A suite with more tests is folded until somebody looks for one. */
const MANY = 12;
const MADE_OF = [
  { value: 'list', words: 'A list of tests' },
  { value: 'tool', words: 'What a tool prints' },
  { value: 'commands', words: 'Commands on a computer' },
] as const;

/** The catalogue: every suite with its tests, built in or the reviewer's own. */
export function SuitesView() {
  const [making, setMaking] = useState<(typeof MADE_OF)[number]['value'] | null>(null);
  const [words, setWords] = useState('');
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')) });
  const versions = useQuery({ queryKey: ['suite-versions'], queryFn: () => value(api.GET('/api/suite-versions')) });
  const measured = useMeasured();
  useKeys(making ? [] : [{ key: 'n', does: 'New suite', changes: true, run: () => setMaking('list') }]);
  return (
    <>
      <Opening
        title="Suites"
        sentence="Every test there are scores for. Scores are compared inside one version and mode of a suite, and nowhere else, unless two were joined, with a reason."
      >
        <button data-changes className={`button ${making ? '' : 'button-main'}`} onClick={() => setMaking('list')}>
          New suite <kbd className="pointer-coarse:hidden">n</kbd>
        </button>
      </Opening>
      {making && (
        <div role="group" aria-label="What the new suite is made of" className="flex flex-wrap items-baseline gap-x-4">
          {MADE_OF.map(({ value: kind, words: told }) => (
            <button
              key={kind}
              className={`small px-1 pb-0.5 ${making === kind ? 'border-b-2 border-gold font-semibold text-ink' : 'link'}`}
              aria-pressed={making === kind}
              onClick={() => setMaking(kind)}
            >
              {told}
            </button>
          ))}
        </div>
      )}
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
