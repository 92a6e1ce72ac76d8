import { useQuery } from '@tanstack/react-query';
import { api, value } from '../../api/client.ts';
import { named } from '../../format/named.ts';
import type { Props } from './piece-parts.ts';
import { Caption, Rows } from './Rows.tsx';
import { useConfigurations } from '../figure/use-answers.ts';

/** Facts of configurations side by side. */
export function FactsPart({ piece, onChange, children }: Props<'FACTS'>) {
  const { pages, waiting } = useConfigurations(piece.body.configurations);
  const keys = [...new Map(pages.flatMap((p) => p.facts.map((f) => [f.key, f.label] as const)))];
  const chosen = piece.body.keys;
  const columns = ['', ...pages.map((p) => named(p.configuration))];
  const rows = keys
    .filter(([key]) => !chosen || chosen.includes(key))
    .map(([key, label]) => [label, ...pages.map((p) => p.facts.find((f) => f.key === key)?.shown ?? '–')]);
  const asks = keys
    .filter(([key]) => !chosen || chosen.includes(key))
    .map(([key]) => [
      undefined,
      ...pages.map((p) =>
        p.facts.some((f) => f.key === key)
          ? ({ of: 'fact', configuration: p.configuration.id, key } as const)
          : undefined,
      ),
    ]);
  return children({
    body:
      pages.length === 0 ? (
        <p className={waiting ? 'text-ink-2' : 'text-plum'}>
          {waiting ? 'Looking it up.' : 'The configurations are not there any more.'}
        </p>
      ) : (
        <>
          <Caption piece={piece} onChange={onChange} proposed="Facts" />
          <Rows columns={columns} rows={rows} asks={asks} />
        </>
      ),
    margin: (
      <details>
        <summary className="link cursor-pointer">
          {chosen ? `${rows.length} of ${keys.length} facts` : 'all facts'}: choose
        </summary>
        <ul className="mt-1">
          {keys.map(([key, label]) => (
            <li key={key}>
              <label>
                <input
                  type="checkbox"
                  checked={!chosen || chosen.includes(key)}
                  onChange={(e) => {
                    const before = chosen ?? keys.map(([k]) => k);
                    onChange({
                      ...piece.body,
                      keys: e.target.checked ? [...before, key] : before.filter((k) => k !== key),
                    });
                  }}
                />{' '}
                {label}
              </label>
            </li>
          ))}
        </ul>
      </details>
    ),
    report: {
      numbers: 0,
      off: 0,
      shown: pages.length === 0 ? undefined : { columns, rows, caption: 'Facts' },
      stops: waiting ? 'Facts are still looked up.' : undefined,
    },
  });
}

/** How it was measured, out of the sessions. */
export function MethodPart({ piece, onChange, children }: Props<'METHOD'>) {
  const { configurations, note } = piece.body;
  const method = useQuery({
    queryKey: ['method', configurations],
    queryFn: () => value(api.GET('/api/write-ups/method', { params: { query: { configuration: configurations } } })),
    enabled: configurations.length > 0,
    staleTime: 60_000,
  });
  const lines = method.data?.lines ?? [];
  return children({
    body: (
      <section>
        <h2 className="text-[18px]">How it was measured</h2>
        <textarea
          aria-label="A note on the method"
          rows={2}
          className="w-full resize-y bg-transparent text-[15px]"
          placeholder="Anything that the sessions do not say"
          value={note ?? ''}
          onChange={(e) => onChange({ ...piece.body, note: e.target.value })}
        />
        <ul className="list-disc pl-4 text-[14px] text-ink-2">
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
        {configurations.length === 0 && (
          <p className="text-ink-2">It speaks of whatever the other pieces show, once they do.</p>
        )}
      </section>
    ),
    margin: (
      <p>
        Out of the sessions of {configurations.length}{' '}
        {configurations.length === 1 ? 'configuration' : 'configurations'}.
      </p>
    ),
    report: {
      numbers: 0,
      off: 0,
      shown: { lines: lines.map((l) => l.slice(0, 600)).slice(0, 100) },
      stops: method.isPending && configurations.length > 0 ? 'The method is still looked up.' : undefined,
    },
  });
}
