import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { day, moment } from '../format/format.ts';
import { Choice } from '../ui/Choice.tsx';
import { Ready } from '../ui/states.tsx';
import { OnceShown } from './OnceShown.tsx';

type Scope = Schemas['KeyRow']['scope'];
const SCOPES: { value: Scope; label: string; detail: string }[] = [
  { value: 'READ', label: 'read', detail: 'asks every question' },
  { value: 'DELIVER', label: 'deliver scores', detail: 'reads; makes configurations and sessions, brings scores' },
  { value: 'EVERYTHING', label: 'do everything', detail: 'whatever you may do yourself' },
];
const DAYS = [7, 30, 90, 365].map((value) => ({ value, label: `${value} days` }));
const scopeWords = (scope: Scope) => SCOPES.find((s) => s.value === scope)!.label;

/** Keys with which programs come in somebody's name: one's own, and for an owner everybody's. */
export function KeysPart({ owner, reader }: { owner: boolean; reader: boolean }) {
  const queries = useQueryClient();
  const keys = useQuery({
    queryKey: ['people', 'keys', owner],
    queryFn: () =>
      owner ? value(api.GET('/api/people/keys')) : value(api.GET('/api/people/me')).then((me) => me.keys),
  });
  const [name, setName] = useState('');
  const [scope, setScope] = useState<Scope>('READ');
  const [days, setDays] = useState(90);
  const changed = () => void queries.invalidateQueries({ queryKey: ['people'] });
  const make = useMutation({
    mutationFn: () => value(api.POST('/api/people/me/keys', { body: { name, scope, days } })),
    onSuccess: () => {
      setName('');
      changed();
    },
  });
  const end = useMutation({
    mutationFn: (id: number) =>
      owner
        ? value(api.DELETE('/api/people/keys/{id}', { params: { path: { id } } }))
        : value(api.DELETE('/api/people/me/keys/{id}', { params: { path: { id } } })),
    onSuccess: changed,
  });
  return (
    <section className="mt-7">
      <h2 className="border-b border-hair pb-0.5">Keys for programs</h2>
      <p className="small mt-1">
        What a program can ask, and what it gets:{' '}
        <Link to="/people/interface" className="link">
          the interface for programs
        </Link>
      </p>
      <Ready query={keys} what="the keys">
        {(rows) =>
          rows.length === 0 ? (
            <p className="small mt-2">There is none. A program that comes with a key does what its person may do.</p>
          ) : (
            <div className="wide">
              <table className="data w-full">
                <thead>
                  <tr>
                    <th>Key</th>
                    <th>May</th>
                    <th>Until</th>
                    <th>Used last</th>
                    <th>
                      <span className="sr-only">Revoke</span>
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map((k) => (
                    <tr key={k.id}>
                      <td>
                        <b className="font-semibold">{k.name}</b>{' '}
                        <span className="small">
                          {k.hint}…{owner && `, of ${k.person}`}
                        </span>
                      </td>
                      <td>{scopeWords(k.scope)}</td>
                      <td className="whitespace-nowrap">
                        {day(k.expiresAt.slice(0, 10))}
                        {Date.parse(k.expiresAt) < Date.now() && ' (over)'}
                      </td>
                      <td className="small">{k.lastAt ? `${moment(k.lastAt)} from ${k.lastAddress}` : 'never'}</td>
                      <td className="text-right">
                        <button
                          className="small link"
                          aria-label={`Revoke the key ${k.name}`}
                          onClick={() => {
                            if (window.confirm(`Revoke “${k.name}”? Programs that use it are refused at once.`))
                              end.mutate(k.id);
                          }}
                        >
                          revoke
                        </button>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )
        }
      </Ready>
      <form
        className="mt-3 flex flex-wrap items-baseline gap-x-2 gap-y-1"
        onSubmit={(event) => {
          event.preventDefault();
          make.mutate();
        }}
      >
        <span>A key called</span>
        <input
          className="field w-48"
          aria-label="Name of the key"
          placeholder="night run"
          required
          maxLength={80}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <span>
          that may{' '}
          <Choice
            name="What the key may do"
            value={scope}
            options={reader ? SCOPES.slice(0, 1) : SCOPES}
            onChoose={setScope}
          >
            {scopeWords(scope)}
          </Choice>{' '}
          for{' '}
          <Choice name="How long" value={days} options={DAYS} onChoose={setDays}>
            {`${days} days`}
          </Choice>
        </span>
        <button className="button" disabled={make.isPending}>
          Make it
        </button>
      </form>
      {(make.error ?? end.error) && (
        <p role="alert" className="mt-1 text-plum">
          {(make.error ?? end.error)!.message}
        </p>
      )}
      {make.data && <OnceShown what="The key" text={make.data.key} until={make.data.expiresAt} />}
    </section>
  );
}
