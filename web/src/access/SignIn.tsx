import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import type { Access } from './access-context.ts';
import { Line, Sheet } from './Sheet.tsx';

export function SignIn({ access, onSignedIn }: { access: Access; onSignedIn: (access: Access) => void }) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const signIn = useMutation({
    mutationFn: (who: { name: string; password: string }) => value(api.POST('/api/access/sign-in', { body: who })),
    onSuccess: onSignedIn,
  });
  const demo = access.demo;
  return (
    <Sheet title={access.lab}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          signIn.mutate({ name, password });
        }}
      >
        <Line label="Name" name="name" value={name} onChange={setName} autoComplete="username" autoFocus />
        <Line
          label="Password"
          type="password"
          name="password"
          value={password}
          onChange={setPassword}
          autoComplete="current-password"
        />
        <p role="alert" className="mt-3 min-h-6 text-plum">
          {signIn.error?.message}
        </p>
        <button className="button button-main w-full py-2.5 text-[15px]" disabled={signIn.isPending}>
          Sign in
        </button>
      </form>
      {demo && (
        <p className="mt-6 border-l-2 border-gold pl-3 text-ink-2">
          This is the demo: sign in as <b className="font-semibold text-ink">{demo.name}</b> with{' '}
          <b className="font-semibold text-ink">{demo.password}</b>, or{' '}
          <button className="link" onClick={() => signIn.mutate(demo)}>
            go straight in
          </button>
          .
        </p>
      )}
    </Sheet>
  );
}
