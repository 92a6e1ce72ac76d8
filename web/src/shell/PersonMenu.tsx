import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { useAccess } from '../access/AccessGate.tsx';
import { api, value } from '../api/client.ts';
import { chooseDensity, useDensity } from './density.ts';
import { chooseTheme, currentTheme } from './theme.ts';

export function PersonMenu({ lab, onHelp }: { lab: string; onHelp: () => void }) {
  const access = useAccess();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const density = useDensity();
  const [theme, setTheme] = useState(currentTheme());
  const signOut = useMutation({
    mutationFn: () => value(api.POST('/api/access/sign-out')),
    onSuccess: () => void queries.invalidateQueries({ queryKey: ['access'] }),
  });
  const next = theme === 'dark' ? 'light' : 'dark';
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className="small max-w-40 truncate py-1.5 lg:max-w-none">{lab}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" align="end" sideOffset={4}>
          <p className="small px-2.5 py-1">Signed in as {access.person}</p>
          <DropdownMenu.Item
            className="menu-item"
            onSelect={() => {
              chooseTheme(next);
              setTheme(next);
            }}
          >
            {next === 'dark' ? 'Dark paper' : 'Light paper'}
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className="menu-item"
            onSelect={() => chooseDensity(density === 'compact' ? 'roomy' : 'compact')}
          >
            {density === 'compact' ? 'Roomy lists' : 'Compact lists'}
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" onSelect={onHelp}>
            Keys and words <kbd>?</kbd>
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" onSelect={() => void navigate({ to: '/people' })}>
            People and keys
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" onSelect={() => signOut.mutate()}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
