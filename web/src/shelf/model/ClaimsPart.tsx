import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useId, useState } from 'react';
import { api, value } from '../../api/client.ts';
import { DraftNote, useDraft } from '../../unsent/draft.tsx';
import { percentOf, quantity } from '../../format/format.ts';
import { Ready, Failed } from '../../ui/states.tsx';

/** What the maker claims, beside what was found. A claim nobody could check yet is open. */
export function ClaimsPart({ modelId }: { modelId: number }) {
  const queries = useQueryClient();
  const key = ['model', modelId, 'claims'];
  const path = { params: { path: { id: modelId } } };
  const claims = useQuery({ queryKey: key, queryFn: () => value(api.GET('/api/models/{id}/claims', path)) });
  const [adding, setAdding] = useState(false);
  const remove = useMutation({
    mutationFn: (claimId: number) =>
      value(api.DELETE('/api/models/{id}/claims/{claimId}', { params: { path: { id: modelId, claimId } } })),
    onSuccess: (list) => queries.setQueryData(key, list),
  });
  return (
    <section className="mt-7">
      <div className="flex items-baseline border-b border-hair pb-0.5">
        <h2>Claims</h2>
        <button data-changes className="small link ml-auto" aria-expanded={adding} onClick={() => setAdding(!adding)}>
          {adding ? 'cancel' : 'add a claim'}
        </button>
      </div>
      {adding && (
        <NewClaim
          modelId={modelId}
          onDone={() => {
            setAdding(false);
            void queries.invalidateQueries({ queryKey: key });
            void queries.invalidateQueries({ queryKey: ['history'] });
          }}
        />
      )}
      <Ready query={claims} what="its claims">
        {(list) =>
          list.length === 0 ? (
            !adding && <p className="small py-2">No claim is noted.</p>
          ) : (
            <table className="data w-full">
              <thead>
                <tr>
                  <th>About</th>
                  <th className="text-right">Claimed</th>
                  <th className="text-right">Found</th>
                  <th>Source</th>
                  <th>
                    <span className="sr-only">Remove</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {list.map((c) => (
                  <tr key={c.claim.id}>
                    <td className="font-semibold">{c.claim.about}</td>
                    <td className="text-right whitespace-nowrap">{c.claim.shown}</td>
                    <td className="text-right">
                      {c.kept === undefined ? (
                        <span className="pill" data-tone="wait">
                          open
                        </span>
                      ) : (
                        <>
                          {c.measured !== undefined && c.claim.metric
                            ? quantity(c.measured, c.claim.metric.unit)
                            : c.found}{' '}
                          {c.foundPerClaimed !== undefined ? (
                            <span className={`small ${c.kept ? 'text-leaf' : 'text-plum'}`}>
                              {percentOf(c.foundPerClaimed)} of the claim
                            </span>
                          ) : (
                            <span className={`small ${c.kept ? 'text-leaf' : 'text-plum'}`}>
                              {c.kept ? 'as claimed' : 'not as claimed'}
                            </span>
                          )}
                        </>
                      )}
                    </td>
                    <td className="small max-w-48 truncate">{c.claim.source}</td>
                    <td className="text-right">
                      <button
                        data-changes
                        className="small link"
                        aria-label={`Remove the claim about ${c.claim.about}`}
                        onClick={() => remove.mutate(c.claim.id)}
                      >
                        remove
                      </button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )
        }
      </Ready>
      <Failed of={remove} />
    </section>
  );
}

function NewClaim({ modelId, onDone }: { modelId: number; onDone: () => void }) {
  const aboutId = useId();
  const draft = useDraft(`claim of ${modelId}`, {
    about: '',
    text: '',
    source: '',
  });
  const [about, setAbout] = draft.field('about');
  const [text, setText] = draft.field('text');
  const [source, setSource] = draft.field('source');
  const vocabulary = useQuery({
    queryKey: ['vocabulary'],
    queryFn: () => value(api.GET('/api/facts/vocabulary')),
    staleTime: Infinity,
  });
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')) });
  const metrics = (tests.data ?? []).flatMap((t) =>
    t.metrics.map((m) => ({
      id: m.id,
      label: `${t.metrics.length > 1 && !m.main ? m.name : t.name} (${t.suite} ${t.version})`,
      unit: m.unit,
    })),
  );
  const fact = vocabulary.data?.find((v) => v.label === about);
  const metric = metrics.find((m) => m.label === about);
  const add = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/models/{id}/claims', {
          params: { path: { id: modelId } },
          body: { ...(fact ? { factKey: fact.key } : {}), ...(metric ? { metricId: metric.id } : {}), text, source },
        }),
      ),
    onSuccess: () => {
      draft.forget();
      onDone();
    },
  });
  return (
    <form
      className="grid max-w-[720px] grid-cols-1 gap-x-5 gap-y-2 py-2 sm:grid-cols-3"
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <DraftNote draft={draft} />
      <label>
        <span className="small">A fact or a test</span>
        <input
          className="field"
          list={aboutId}
          required
          autoFocus
          value={about}
          maxLength={200}
          onChange={(e) => setAbout(e.target.value)}
        />
        <datalist id={aboutId}>
          {vocabulary.data?.map((v) => (
            <option key={v.key} value={v.label} />
          ))}
          {metrics.map((m) => (
            <option key={m.id} value={m.label} />
          ))}
        </datalist>
      </label>
      <label>
        <span className="small">Claimed{metric && metric.unit !== '1' ? ` in ${metric.unit}` : ''}</span>
        <input
          className="field"
          required
          value={text}
          placeholder={fact?.example ?? ''}
          maxLength={200}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <label>
        <span className="small">Claimed where</span>
        <input
          className="field"
          required
          value={source}
          placeholder="data sheet, the box"
          maxLength={300}
          onChange={(e) => setSource(e.target.value)}
        />
      </label>
      {about !== '' && !fact && !metric && (
        <p className="small sm:col-span-3">Choose a fact or a test from the list; so far this is neither.</p>
      )}
      <p className="flex gap-3 sm:col-span-3">
        <button className="button button-main" disabled={(!fact && !metric) || add.isPending}>
          Save
        </button>
        {add.isError && (
          <span role="alert" className="text-plum">
            {add.error.message}
          </span>
        )}
      </p>
    </form>
  );
}
