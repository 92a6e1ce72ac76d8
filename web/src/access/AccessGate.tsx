import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useContext, useEffect, useLayoutEffect, type ReactNode } from 'react';
import { api, ownedBy, value } from '../api/client.ts';
import { Loading, Trouble } from '../ui/states.tsx';
import { AccessContext, type Access } from './access-context.ts';
import { MakeOwner } from './MakeOwner.tsx';
import { SignIn } from './SignIn.tsx';
import { Welcome } from './Welcome.tsx';

/** Who is signed in, and to which lab. */
export function useAccess(): Access {
  const access = useContext(AccessContext);
  if (!access) throw new Error('useAccess is used outside the gate');
  return access;
}

/** Shows the program to who is signed in, and otherwise the page that leads there. */
export function AccessGate({ children }: { children: ReactNode }) {
  const queries = useQueryClient();
  const access = useQuery({
    queryKey: ['access'],
    queryFn: () => value(api.GET('/api/access')),
    staleTime: Infinity,
    // A page that was opened while the server or its records were away comes up once they are back.
    refetchInterval: (query) => (query.state.status === 'error' ? 2_000 : false),
  });
  useEffect(() => {
    const signedOut = () => void queries.invalidateQueries({ queryKey: ['access'] });
    window.addEventListener('yarrowmark:signed-out', signedOut);
    return () => window.removeEventListener('yarrowmark:signed-out', signedOut);
  }, [queries]);

  const role = access.data?.role;
  // Before the first paint: the sheet of styles takes away what a reader would be refused.
  useLayoutEffect(() => {
    document.documentElement.dataset['role'] = role ?? '';
  }, [role]);

  if (access.isPending) return <Loading what="the shelf" />;
  if (access.isError && access.data === undefined)
    return <Trouble error={access.error} again={() => void access.refetch()} />;
  const entered = (next: Access) => {
    // What somebody else saw before is forgotten; this query itself stays, because the gate is watching it.
    queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'access' });
    queries.setQueryData(['access'], next);
  };
  if (window.location.pathname === '/welcome') return <Welcome access={access.data} onSignedIn={entered} />;
  switch (access.data.state) {
    case 'NEEDS_OWNER':
      return <MakeOwner known={access.data.lab} onMade={entered} />;
    case 'SIGNED_OUT':
      ownedBy(undefined, undefined);
      return <SignIn access={access.data} onSignedIn={entered} />;
    case 'SIGNED_IN':
      // Before anything below it can send a change.
      ownedBy(access.data.shelf, access.data.person);
      return <AccessContext value={access.data}>{children}</AccessContext>;
  }
}
