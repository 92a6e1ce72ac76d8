import { type Schemas } from '../../api/client.ts';
import { useState } from 'react';
import { moment } from '../../format/format.ts';
import { CorrectionForm } from '../fact/CorrectionForm.tsx';
import { parts } from '../fact/fact-rows.ts';

type ConfigurationPage = Schemas['ConfigurationPage'];
const SOURCES = { DETECTED: 'detected', TYPED: 'typed', READ: 'from a tool' } as const;

export function Facts({ page, onPage }: { page: ConfigurationPage; onPage: (page: ConfigurationPage) => void }) {
  const [correcting, setCorrecting] = useState<string | null>(null);
  const groups = [...new Set(page.facts.map((f) => f.group))];
  return (
    <div className="min-w-0">
      <div className="gap-x-8 sm:columns-2">
        {groups.map((group) => (
          <section key={group} className="mb-4 break-inside-avoid">
            <h2 className="border-b border-hair pb-0.5">{group}</h2>
            <UsedPart facts={page.facts} group={group} />
            <dl>
              {page.facts
                .filter((f) => f.group === group)
                .map((fact) => (
                  <div key={fact.key} className="flex flex-wrap gap-x-3 border-b border-hair-2 py-1">
                    <dt className="text-ink-2">{fact.label}</dt>
                    <dd className="ml-auto min-w-0 text-right break-words">
                      {page.sessions > 0 && correcting !== fact.key && page.mergedInto === undefined && (
                        <button
                          data-changes
                          className="small link mr-2 text-ink-3"
                          aria-label={`Correct ${fact.label}`}
                          onClick={() => setCorrecting(fact.key)}
                        >
                          correct
                        </button>
                      )}
                      {fact.shown} <span className="small text-ink-3">{SOURCES[fact.source]}</span>
                    </dd>
                    {correcting === fact.key && (
                      <dd className="w-full">
                        <CorrectionForm
                          page={page}
                          fact={fact}
                          onDone={(next) => {
                            setCorrecting(null);
                            if (next) onPage(next);
                          }}
                        />
                      </dd>
                    )}
                  </div>
                ))}
            </dl>
          </section>
        ))}
        {groups.length === 0 && <p className="text-ink-2">No fact is known of it.</p>}
      </div>
      {page.corrections.length > 0 && (
        <section className="mb-4">
          <h2 className="border-b border-hair pb-0.5">Corrections</h2>
          {page.corrections.map((r, i) => (
            <p key={i} className="border-b border-hair-2 py-1">
              {r.label}: {r.before ?? 'not known'} → <b className="font-semibold">{r.after ?? 'not known'}</b>{' '}
              <span className="small block">
                {r.reason}; {r.person}, {moment(r.at)}
              </span>
            </p>
          ))}
        </section>
      )}
    </div>
  );
}

/** Which one of several the tests used; where that is wrong, it is said in a copy or before the first session. */
function UsedPart({ facts, group }: { facts: ConfigurationPage['facts']; group: string }) {
  const all = parts(
    facts.map((f) => ({ key: f.key, text: f.shown })),
    group,
  );
  return all.length < 2 ? null : (
    <p className="small border-b border-hair-2 py-1">
      One of {all.length}: tests use {all[0]!.name}.
    </p>
  );
}
