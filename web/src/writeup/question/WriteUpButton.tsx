import { useMutation, useQuery } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { DropdownMenu } from 'radix-ui';
import { useReader } from '../../access/access-context.ts';
import { leaveFocusWhereTaken } from '../../ui/focused-before.ts';
import { begin, BEGINS_WORDS, kindsFor, kindsQuery, type Beginning, type Kind } from './begin.ts';

/**
 * "Write this up": begins a write-up about whatever a view shows, of the kind that the lab has for it; others are a press
 * further. Readers write none.
 */
export function WriteUpButton({
  beginning,
  main = false,
  children = 'Write this up',
}: {
  beginning: () => Beginning | Promise<Beginning>;
  main?: boolean;
  children?: string;
}) {
  const reader = useReader();
  const navigate = useNavigate();
  const kinds = useQuery({ ...kindsQuery, enabled: !reader });
  const make = useMutation({
    mutationFn: async (kind: Kind | undefined) => {
      const of = await beginning();
      return begin(of, kind ?? kindsFor(kinds.data ?? [], of.begins)[0]);
    },
    onSuccess: (id) => void navigate({ to: '/write-ups/$writeUpId', params: { writeUpId: String(id) } }),
  });
  if (reader) return null;
  const look = main ? 'button button-main' : 'button';
  return (
    <>
      <span className="inline-flex">
        <button
          className={`${look} rounded-r-none`}
          disabled={make.isPending || kinds.isPending}
          onClick={() => make.mutate(undefined)}
        >
          {children}
        </button>
        <DropdownMenu.Root>
          <DropdownMenu.Trigger
            className={`${look} rounded-l-none border-l-0 px-2`}
            aria-label={`${children}: choose a kind`}
            disabled={make.isPending || kinds.isPending}
          >
            <span aria-hidden="true">▾</span>
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content className="menu" align="end" sideOffset={4} onCloseAutoFocus={leaveFocusWhereTaken}>
              {(kinds.data ?? []).map((kind) => (
                <DropdownMenu.Item key={kind.id} className="menu-item" onSelect={() => make.mutate(kind)}>
                  {kind.name} <span className="small">for {BEGINS_WORDS[kind.begins]}</span>
                </DropdownMenu.Item>
              ))}
              {kinds.data?.length === 0 && (
                <DropdownMenu.Item className="menu-item" disabled>
                  This lab has no kinds; it begins with a text.
                </DropdownMenu.Item>
              )}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </span>
      {make.error && (
        <span role="alert" className="small text-plum">
          {make.error.message}
        </span>
      )}
    </>
  );
}
