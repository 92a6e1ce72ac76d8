import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import type { FactRow } from './fact-rows.ts';

type ReadFact = Schemas['ReadFact'];

/** Paste what a system's own tools print, see what was recognised, and accept it fact by fact. */
export function ReadText({
  rows,
  onAccept,
}: {
  rows: readonly FactRow[];
  onAccept: (facts: readonly ReadFact[]) => void;
}) {
  const [text, setText] = useState('');
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const read = useMutation({
    mutationFn: () => value(api.POST('/api/facts/read', { body: { text } })),
    onSuccess: () => setTaken(new Set()),
  });
  const accept = (facts: readonly ReadFact[]) => {
    onAccept(facts);
    setTaken(new Set([...taken, ...facts.map((f) => f.key)]));
  };
  const now = (fact: ReadFact) => rows.find((r) => r.key === fact.key && !r.removed && r.text.trim() !== '')?.text;
  const fresh = read.data?.facts.filter((f) => !taken.has(f.key) && now(f) === undefined) ?? [];
  return (
    <section className="my-3 border-y border-hair bg-sheet px-4 py-3">
      <label className="block">
        <span className="small">
          What a tool printed: lscpu, /proc/cpuinfo, /proc/meminfo, /etc/os-release, uname -a, lsblk -J, dmidecode,
          lspci, ip link, lshw -json, systeminfo, system_profiler -json, getprop. Several at once will do.
        </span>
        <textarea
          className="field mt-1 max-h-64 font-mono text-[12px]"
          rows={6}
          spellCheck={false}
          autoFocus
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <div className="mt-2 flex items-center gap-3">
        <button
          type="button"
          className="button"
          disabled={text.trim() === '' || read.isPending}
          onClick={() => read.mutate()}
        >
          {read.isPending ? 'Reading' : 'Read it'}
        </button>
        {read.data && (
          <span role="status">
            {read.data.facts.length === 0
              ? 'Nothing in it was recognised.'
              : `${read.data.facts.length} facts recognised, from ${read.data.tools.join(', ')}.`}
          </span>
        )}
        {fresh.length > 1 && (
          <button type="button" className="button ml-auto" onClick={() => accept(fresh)}>
            Accept all {fresh.length} that are new
          </button>
        )}
        {read.isError && (
          <span role="alert" className="text-plum">
            {read.error.message}
          </span>
        )}
      </div>
      {read.data && (
        <>
          <ul className="mt-2">
            {[...read.data.facts, ...read.data.doubts].map((fact, i) => {
              const current = now(fact);
              const doubt = i >= read.data.facts.length;
              return (
                <li
                  key={`${fact.key}-${fact.exact}-${i}`}
                  className="flex flex-wrap items-baseline gap-x-3 border-b border-hair-2 py-1"
                >
                  <span className="text-ink-2">{fact.label}</span> <b className="font-semibold">{fact.shown}</b>
                  <span className="small truncate text-ink-3" title={fact.text}>
                    {fact.tool}, line {fact.line}
                    {doubt && ', which another tool tells otherwise'}
                  </span>
                  <span className="ml-auto">
                    {current === fact.shown || current === fact.exact ? (
                      <span className="small text-leaf">{taken.has(fact.key) ? 'accepted' : 'the same here'}</span>
                    ) : (
                      <>
                        <span className="small">{current !== undefined && `here: ${current} `}</span>
                        <button type="button" className="link small" onClick={() => accept([fact])}>
                          {current === undefined ? 'accept' : 'take this one'}
                        </button>
                      </>
                    )}
                  </span>
                </li>
              );
            })}
          </ul>
          {read.data.facts.length === 0 && read.data.unreadTotal > 0 && (
            <p className="small mt-2">
              A tool that prints in another language than English, German, French or Spanish is read when it is told to
              speak English: <code>LC_ALL=C lscpu</code>, for example.
            </p>
          )}
          {read.data.unreadTotal > 0 && (
            <details className="mt-2">
              <summary className="small cursor-pointer">
                {read.data.unreadTotal} of {read.data.lines} lines were not recognised
              </summary>
              <pre className="mt-1 max-h-52 overflow-auto text-[12px] text-ink-2">
                {read.data.unread.map((l) => `${String(l.number).padStart(5)}  ${l.text}`).join('\n')}
                {read.data.unreadTotal > read.data.unread.length &&
                  `\n… and ${read.data.unreadTotal - read.data.unread.length} more`}
              </pre>
            </details>
          )}
        </>
      )}
    </section>
  );
}
