import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import { moment } from '../format/format.ts';
import { Ready } from '../ui/states.tsx';
import type { SuiteOfTests } from './suites.ts';

/** With which versions' scores these are compared: a decision with a reason, that can be taken back. */
export function JoinPart({ suite }: { suite: SuiteOfTests }) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const [into, setInto] = useState('');
  const [reason, setReason] = useState('');
  const versions = useQuery({ queryKey: ['suite-versions'], queryFn: () => value(api.GET('/api/suite-versions')) });
  const show = (rows: Schemas['VersionRow'][]) => {
    queries.setQueryData(['suite-versions'], rows);
    void changed(queries, 'catalogue');
    setOpen(false);
    setReason('');
  };
  const path = { params: { path: { id: suite.id } } };
  const join = useMutation({
    mutationFn: () =>
      value(api.POST('/api/suite-versions/{id}/join', { ...path, body: { into: Number(into), reason } })),
    onSuccess: show,
  });
  const part = useMutation({
    mutationFn: () => value(api.DELETE('/api/suite-versions/{id}/join', path)),
    onSuccess: show,
  });
  const error = join.error ?? part.error;
  return (
    <section>
      <h2 className="border-b border-hair pb-0.5">Compared with</h2>
      <Ready query={versions} what="the versions">
        {(rows) => {
          const own = rows.find((v) => v.id === suite.id)?.joined;
          const others = rows.filter((v) => v.joined?.into === suite.id);
          return (
            <>
              {own && (
                <div className="py-1">
                  <p className="font-semibold">{own.intoName}</p>
                  <p className="small">
                    because: {own.reason}. Joined by {own.person}, {moment(own.at)}.{' '}
                    <button data-changes className="link" onClick={() => part.mutate()}>
                      separate them again
                    </button>
                  </p>
                </div>
              )}
              {others.map((v) => (
                <p key={v.id} className="py-1">
                  <span className="font-semibold">
                    {v.suite} {v.version}
                  </span>{' '}
                  <span className="small">because: {v.joined!.reason}</span>
                </p>
              ))}
              {!own && others.length === 0 && (
                <p className="small py-1">Only its own scores. Another version is comparable only if you decide so.</p>
              )}
              {!own &&
                (open ? (
                  <form
                    className="py-1"
                    onSubmit={(e) => {
                      e.preventDefault();
                      join.mutate();
                    }}
                    onKeyDown={(e) => {
                      if (e.key === 'Escape') setOpen(false);
                    }}
                  >
                    <label className="block">
                      <span className="small">Compare its scores with those of</span>
                      <select
                        className="field"
                        required
                        autoFocus
                        value={into}
                        onChange={(e) => setInto(e.target.value)}
                      >
                        <option value="">choose a version</option>
                        {rows
                          .filter((v) => v.id !== suite.id)
                          .map((v) => (
                            <option key={v.id} value={v.id}>
                              {v.suite} {v.version}
                            </option>
                          ))}
                      </select>
                    </label>
                    <label className="mt-1 block">
                      <span className="small">because</span>
                      <input
                        className="field"
                        required
                        maxLength={500}
                        placeholder="only the window changed"
                        value={reason}
                        onChange={(e) => setReason(e.target.value)}
                      />
                    </label>
                    <p className="mt-2 flex gap-2">
                      <button className="button" disabled={into === '' || reason.trim() === '' || join.isPending}>
                        Join them
                      </button>
                      <button type="button" className="button" onClick={() => setOpen(false)}>
                        Cancel
                      </button>
                    </p>
                  </form>
                ) : (
                  <p className="py-1">
                    <button data-changes className="small link" onClick={() => setOpen(true)}>
                      compare with another version
                    </button>
                  </p>
                ))}
            </>
          );
        }}
      </Ready>
      {error && (
        <p role="alert" className="text-plum">
          {error.message}
        </p>
      )}
    </section>
  );
}
