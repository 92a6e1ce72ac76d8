import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { Loading } from '../ui/states.tsx';
import type { Access } from './access-context.ts';
import { Line, Sheet } from './Sheet.tsx';

const ROLE_WORDS = { OWNER: 'an owner', REVIEWER: 'a reviewer', READER: 'a reader' } as const;

/** Where a link leads that works once: to become somebody here, or to choose a new password. */
export function Welcome({ access, onSignedIn }: { access: Access; onSignedIn: (access: Access) => void }) {
  // After the #, so that no log and no proxy on the way sees it.
  const [token] = useState(() => window.location.hash.slice(1));
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const [endKeys, setEndKeys] = useState<boolean>();
  const link = useQuery({
    queryKey: ['access', 'link'],
    queryFn: () => value(api.POST('/api/access/invitation/look', { body: { token } })),
    retry: false,
    staleTime: Infinity,
  });
  const enter = useMutation({
    mutationFn: () => value(api.POST('/api/access/invitation', { body: { token, name, password, endKeys } })),
    onSuccess: (next) => {
      // The link is used up; nothing of it stays in the address or behind "back".
      window.history.replaceState(null, '', '/standings');
      onSignedIn(next);
    },
  });
  if (link.isPending) return <Loading what="the link" />;
  if (link.isError)
    return (
      <Sheet title={access.lab}>
        <p role="alert" className="mt-2 text-plum">
          {link.error.message}
        </p>
        <a className="link mt-4" href="/standings">
          To the sign-in
        </a>
      </Sheet>
    );
  const joins = link.data.role;
  return (
    <Sheet title={joins ? `Welcome to ${access.lab}` : 'A new password'}>
      <p className="mt-1 text-ink-2">
        {joins
          ? `${link.data.madeBy} invites you as ${ROLE_WORDS[joins]}.`
          : `For ${link.data.name ?? 'you'}. Everywhere else you are signed out with it.`}
      </p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          enter.mutate();
        }}
      >
        {joins && (
          <Line label="Your name" name="name" value={name} onChange={setName} autoComplete="username" autoFocus />
        )}
        <Line
          label="Password"
          type="password"
          name="password"
          value={password}
          onChange={setPassword}
          autoComplete="new-password"
          autoFocus={!joins}
          hint="Ten characters or more; a few words that do not belong together are best."
        />
        {link.data.keys > 0 && (
          <fieldset className="mt-3">
            <legend>
              {link.data.keys === 1
                ? 'You have a key for programs. It works without your password.'
                : `You have ${link.data.keys} keys for programs. They work without your password.`}
            </legend>
            {[
              { ends: true, words: link.data.keys === 1 ? 'End it as well' : 'End them as well' },
              { ends: false, words: link.data.keys === 1 ? 'Keep it' : 'Keep them' },
            ].map(({ ends, words }) => (
              <label key={words} className="flex items-center gap-2 py-1">
                <input
                  type="radio"
                  name="end-keys"
                  required
                  checked={endKeys === ends}
                  onChange={() => setEndKeys(ends)}
                />
                {words}
              </label>
            ))}
          </fieldset>
        )}
        <p role="alert" className="mt-3 min-h-6 text-plum">
          {enter.error?.message}
        </p>
        <button className="button button-main w-full py-2.5 text-[15px]" disabled={enter.isPending}>
          {joins ? 'Come in' : 'Keep the password'}
        </button>
      </form>
    </Sheet>
  );
}
