import { useQueries } from '@tanstack/react-query';
import { createContext, useContext, useState, type KeyboardEvent } from 'react';
import { api, value } from '../../api/client.ts';
import { Panel } from '../../ui/Panel.tsx';
import { liveFact, liveOverall, liveRatio, liveValue, type LiveNumber } from '../question/number-words.ts';
import type { comparedBy, NumberQuestion } from '../question/questions.ts';
import { compared } from '../figure/answers.ts';

export interface Picked {
  question: NumberQuestion;
  words: string;
}
interface Hit extends Picked {
  says: string;
  search: string;
}

/** Whose numbers are offered: those that the write-up speaks of, and those on the table. */
export const Offered = createContext<readonly number[]>([]);

/** How two of them are compared in the write-up, where a figure of it says so. */
export const ComparedAs = createContext<ReturnType<typeof comparedBy>>(() => undefined);

const SHOWN = 60;
/** Each pair is a question of its own. */
const MOST = 4;

/** Finds a number by words: a test, a fact, a device, or the number itself. */
export function NumberPicker({
  wanted: first = '',
  onPick,
  onPoint,
  onClose,
}: {
  /** What is looked for to begin with. */
  wanted?: string | undefined;
  onPick: (picked: Picked) => void;
  /** Picks it where it stands on the page instead. */
  onPoint: () => void;
  onClose: () => void;
}) {
  const [words, setWords] = useState(first);
  const [active, setActive] = useState(0);
  const { hits, waiting, nobody } = useHits();
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const found = hits.filter((h) => wanted.every((w) => h.search.includes(w)));
  const shown = found.slice(0, SHOWN);
  function keys(event: KeyboardEvent) {
    if (event.key === 'ArrowDown') setActive(Math.min(shown.length - 1, active + 1));
    else if (event.key === 'ArrowUp') setActive(Math.max(0, active - 1));
    else if (event.key === 'Enter' && shown[active]) onPick(shown[active]);
    else return;
    event.preventDefault();
  }
  return (
    <Panel open onClose={onClose} title="A number">
      <input
        className="field mt-2 text-[17px]"
        placeholder="A test, a fact, a device"
        aria-label="Find a number"
        role="combobox"
        aria-expanded="true"
        aria-controls="number-hits"
        aria-activedescendant={`number-${active}`}
        autoFocus
        value={words}
        onKeyDown={keys}
        onChange={(e) => {
          setWords(e.target.value);
          setActive(0);
        }}
      />
      <p className="small mt-1">
        or{' '}
        <button className="link" onClick={onPoint}>
          press it on the page
        </button>
      </p>
      <ul id="number-hits" role="listbox" aria-label="Numbers" className="mt-2">
        {shown.map((h, i) => (
          <li
            key={`${JSON.stringify(h.question)}-${h.words}`}
            id={`number-${i}`}
            role="option"
            aria-selected={i === active}
            className="menu-item"
            onPointerMove={() => setActive(i)}
            onClick={() => onPick(h)}
          >
            <b className="font-semibold whitespace-nowrap">{h.words}</b> <span className="small">{h.says}</span>
          </li>
        ))}
      </ul>
      {nobody ? (
        <p className="small mt-2">
          Put a configuration on the table first: its numbers, and how it compares, are offered here.
        </p>
      ) : waiting ? (
        <p className="small mt-2">Looking up the numbers.</p>
      ) : (
        found.length === 0 && <p className="small mt-2">No number is called that.</p>
      )}
      {found.length > SHOWN && <p className="small mt-2">{found.length - SHOWN} more; further words narrow it down.</p>}
    </Panel>
  );
}

function useHits(): { hits: Hit[]; waiting: boolean; nobody: boolean } {
  const ids = useContext(Offered);
  const as = useContext(ComparedAs);
  const near = ids.slice(0, MOST);
  const values = useQueries({
    queries: near.map((id) => ({
      queryKey: ['values', [id], []],
      queryFn: () => value(api.GET('/api/compare/values', { params: { query: { ids: [id] } } })),
      staleTime: 60_000,
    })),
  });
  const pages = useQueries({
    queries: near.map((id) => ({
      queryKey: ['configuration', id],
      queryFn: () => value(api.GET('/api/configurations/{id}', { params: { path: { id } } })),
      staleTime: 60_000,
    })),
  });
  const pairs = near.flatMap((a) => near.filter((b) => b !== a).map((b) => [a, b] as const));
  const comparisons = useQueries({
    queries: pairs.map(([a, b]) => compared(a, b, as(a, b))),
  });
  const all: Hit[] = [];
  {
    const put = (question: NumberQuestion, now: LiveNumber | undefined) =>
      now?.forms.forEach((words) =>
        all.push({ question, words, says: now.says, search: `${words} ${now.says}`.toLowerCase() }),
      );
    comparisons.forEach((c, i) => {
      const [configuration, base] = pairs[i]!;
      const side = c.data?.sides[0];
      if (!c.data || !side) return;
      const by = as(configuration, base);
      const asked = { configuration, base, ...(by && { by }) };
      put({ of: 'overall', ...asked }, liveOverall(side, c.data, by));
      for (const row of c.data.rows)
        if (row.cells[0])
          put(
            { of: 'ratio', ...asked, metric: row.metric.id },
            liveRatio(row.cells[0], row.metric, side.configuration, c.data, by),
          );
    });
    for (const v of values)
      v.data?.rows.forEach((row) =>
        row.values.forEach((of, m) =>
          put(
            { of: 'value', configuration: row.configuration.id, metric: v.data.metrics[m]!.id },
            liveValue(of, v.data.metrics[m]!, row.configuration),
          ),
        ),
      );
    for (const p of pages)
      p.data?.facts.forEach((f) =>
        put({ of: 'fact', configuration: p.data.configuration.id, key: f.key }, liveFact(p.data, f.key)),
      );
  }
  return {
    hits: all,
    waiting: [...values, ...pages, ...comparisons].some((q) => q.isPending),
    nobody: near.length === 0,
  };
}
