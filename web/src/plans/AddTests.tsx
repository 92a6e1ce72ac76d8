import { useState } from 'react';
import type { Schemas } from '../api/client.ts';
import { testGroup } from '../format/format.ts';
import { bestMatch, suites, usedFirst, useMeasured, withWords } from '../suites/suites.ts';

type TestRow = Schemas['TestRow'];

/** Tests to add to a plan: found by words, folded by suite, those the shelf has results for first. */
export function AddTests({
  tests,
  taken,
  onAdd,
}: {
  tests: readonly TestRow[];
  taken: ReadonlySet<number>;
  onAdd: (tests: readonly TestRow[]) => void;
}) {
  const [words, setWords] = useState('');
  const measured = useMeasured();
  const found = withWords(usedFirst(suites(tests), measured), words);
  const first = bestMatch(
    found.flatMap((s) => s.tests).filter((t) => !taken.has(t.id)),
    words,
  );
  return (
    <fieldset className="mt-3 min-w-0 border-t border-hair pt-2">
      <legend className="small pr-2">Add tests</legend>
      <input
        className="field w-80 max-w-full"
        placeholder="any words of a suite or test"
        aria-label="Words of a test to add"
        maxLength={120}
        value={words}
        onChange={(e) => setWords(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && !e.ctrlKey && !e.metaKey) {
            e.preventDefault();
            if (first && words.trim() !== '') {
              onAdd([first]);
              setWords('');
            }
          }
          if (e.key === 'Escape' && words !== '') {
            e.stopPropagation();
            setWords('');
          }
        }}
      />{' '}
      {first && words.trim() !== '' && (
        <span className="small">
          <kbd>Enter</kbd> adds {first.name}
        </span>
      )}
      <div className="mt-1 max-h-72 overflow-y-auto" role="group" aria-label="Tests to add">
        {found.map((suite) => {
          const open = suite.tests.filter((t) => !taken.has(t.id));
          const used = suite.tests.filter((t) => measured.has(t.id)).length;
          return (
            <details
              key={`${suite.id} ${words.trim() !== ''}`}
              open={words.trim() !== ''}
              className="border-b border-hair-2"
            >
              <summary className="cursor-pointer py-1">
                {suite.name}{' '}
                <span className="small">
                  {open.length === suite.tests.length
                    ? `${suite.tests.length} ${suite.tests.length === 1 ? 'test' : 'tests'}`
                    : `${suite.tests.length - open.length} of ${suite.tests.length} in the plan`}
                  {used > 0 ? `, results for ${used}` : measured.size > 0 && ', never run here'}
                </span>
              </summary>
              <ul className="pb-1 pl-4">
                {suite.tests.length > 1 && open.length > 1 && (
                  <li>
                    <button type="button" className="small link" onClick={() => onAdd(open)}>
                      add all {open.length}
                    </button>
                  </li>
                )}
                {suite.tests.map((t) => (
                  <li key={t.id} className="flex items-baseline gap-2 py-0.5">
                    <button
                      type="button"
                      className="text-left hover:underline disabled:no-underline"
                      disabled={taken.has(t.id)}
                      onClick={() => onAdd([t])}
                    >
                      {t.name}
                    </button>
                    <span className="small">
                      {taken.has(t.id) ? 'in the plan' : testGroup(t.group)}
                      {measured.has(t.id) && ', has results'}
                    </span>
                  </li>
                ))}
              </ul>
            </details>
          );
        })}
        {found.length === 0 && <p className="small py-1">No test has these words.</p>}
      </div>
    </fieldset>
  );
}
