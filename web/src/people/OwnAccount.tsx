import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { moment } from '../format/format.ts';
import { Ready } from '../ui/states.tsx';
import { agentWords } from './agent-words.ts';

/** One's own name, password, and the places where one is signed in. */
export function OwnAccount() {
  const queries = useQueryClient();
  const me = useQuery({ queryKey: ['people', 'me'], queryFn: () => value(api.GET('/api/people/me')) });
  const changed = () => {
    void queries.invalidateQueries({ queryKey: ['people'] });
    void queries.invalidateQueries({ queryKey: ['access'] });
  };
  const end = useMutation({
    mutationFn: (id: number) => value(api.DELETE('/api/people/me/places/{id}', { params: { path: { id } } })),
    onSuccess: changed,
  });
  const everywhere = useMutation({
    mutationFn: () => value(api.POST('/api/people/me/sign-out-everywhere')),
    onSuccess: changed,
  });
  const leave = useMutation({ mutationFn: () => value(api.DELETE('/api/people/me')), onSuccess: changed });
  const trouble = end.error ?? everywhere.error ?? leave.error;
  return (
    <aside className="min-w-0" aria-label="Your account">
      <h2 className="border-b border-hair pb-0.5">You</h2>
      <Ready query={me} what="your account">
        {(data) => (
          <>
            <NameForm key={data.name} name={data.name} onDone={changed} />
            <PasswordForm onDone={changed} />
            <h3 className="mt-6">Where you are signed in</h3>
            <ul aria-label="Where you are signed in">
              {data.places.map((p) => (
                <li key={p.id} className="flex items-baseline gap-3 border-b border-hair-2 py-1">
                  <span className="min-w-0">
                    {agentWords(p.agent)} <span className="small">from {p.address}</span>
                    <span className="small block">
                      since {moment(p.startedAt)}, last {moment(p.lastAt)}
                    </span>
                  </span>
                  {p.here ? (
                    <span className="pill ml-auto" data-tone="good">
                      here
                    </span>
                  ) : (
                    <button className="small link ml-auto" onClick={() => end.mutate(p.id)}>
                      sign out
                    </button>
                  )}
                </li>
              ))}
            </ul>
            <p className="mt-2 flex flex-wrap gap-x-4">
              <button className="link small" onClick={() => everywhere.mutate()}>
                Sign out everywhere, here too
              </button>
              <button
                className="link small"
                onClick={() => {
                  if (window.confirm('Leave this lab? You are signed out at once. What you did keeps your name.'))
                    leave.mutate();
                }}
              >
                Leave the lab
              </button>
            </p>
            {trouble && (
              <p role="alert" className="mt-1 text-plum">
                {trouble.message}
              </p>
            )}
          </>
        )}
      </Ready>
    </aside>
  );
}

function NameForm({ name, onDone }: { name: string; onDone: () => void }) {
  const [next, setNext] = useState(name);
  const [password, setPassword] = useState('');
  const save = useMutation({
    mutationFn: () => value(api.PUT('/api/people/me/name', { body: { name: next, password } })),
    onSuccess: onDone,
  });
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <label className="block">
        <span className="small">Name</span>
        <input
          className="field"
          required
          maxLength={80}
          autoComplete="username"
          value={next}
          onChange={(e) => setNext(e.target.value)}
        />
      </label>
      {next.trim() !== name && (
        <>
          <PasswordField label="Your password, to confirm" value={password} onChange={setPassword} />
          <p className="small">What you did so far stays under {name}; that name stays reserved for you.</p>
          <button className="button mt-2" disabled={save.isPending}>
            Change the name
          </button>
        </>
      )}
      <Told error={save.error} />
    </form>
  );
}

function PasswordForm({ onDone }: { onDone: () => void }) {
  const [old, setOld] = useState('');
  const [password, setPassword] = useState('');
  const save = useMutation({
    mutationFn: () => value(api.PUT('/api/people/me/password', { body: { old, password } })),
    onSuccess: () => {
      setOld('');
      setPassword('');
      onDone();
    },
  });
  return (
    <form
      className="mt-4"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <PasswordField label="Password of now" value={old} onChange={setOld} />
      <PasswordField label="New password" value={password} onChange={setPassword} fresh />
      <button className="button mt-2" disabled={save.isPending || old === '' || password === ''}>
        Change the password
      </button>{' '}
      <span className="small">signs you out everywhere else</span>
      <Told error={save.error} />
      {save.isSuccess && <p role="status">The new password counts from now on.</p>}
    </form>
  );
}

function PasswordField({
  label,
  value: text,
  onChange,
  fresh = false,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  fresh?: boolean;
}) {
  return (
    <label className="mt-2 block">
      <span className="small">{label}</span>
      <input
        className="field"
        type="password"
        required
        maxLength={200}
        autoComplete={fresh ? 'new-password' : 'current-password'}
        value={text}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}

function Told({ error }: { error: Error | null }) {
  return error ? (
    <p role="alert" className="mt-1 text-plum">
      {error.message}
    </p>
  ) : null;
}
