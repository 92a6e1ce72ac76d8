import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useNavigate } from '@tanstack/react-router';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { ledgerSearch, type LedgerSearch } from '../shell/search-params.ts';
import { leaveFocusWhereTaken } from '../ui/focused-before.ts';

/** What a sentence says, as an address, and back. */
export function addressOf(search: LedgerSearch): string {
  return new URLSearchParams(
    Object.entries(search)
      .filter(([key, v]) => v !== undefined && key !== 'page' && key !== 'reading')
      .map(([key, v]) => [key, String(v)]),
  ).toString();
}

export function searchOf(address: string): LedgerSearch {
  return ledgerSearch(Object.fromEntries(new URLSearchParams(address)));
}

/** Views of the ledger a person comes back to. */
export function SavedViews({ search }: { search: LedgerSearch }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const views = useQuery({ queryKey: ['ledger-views'], queryFn: () => value(api.GET('/api/ledger/views')) });
  const show = (list: typeof views.data) => queries.setQueryData(['ledger-views'], list);
  const save = useMutation({
    mutationFn: () => value(api.POST('/api/ledger/views', { body: { name, address: addressOf(search) } })),
    onSuccess: (list) => {
      show(list);
      setName('');
    },
  });
  const remove = useMutation({
    mutationFn: (id: number) => value(api.DELETE('/api/ledger/views/{id}', { params: { path: { id } } })),
    onSuccess: show,
  });
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="button">Saved views</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          onCloseAutoFocus={leaveFocusWhereTaken}
          className="menu w-80 p-3"
          align="end"
          sideOffset={6}
          aria-label="Saved views"
        >
          {(views.data ?? []).map((v) => (
            <p key={v.id} className="flex items-baseline gap-3 border-b border-hair-2 py-1">
              <button
                data-changes
                className="link min-w-0 truncate text-left"
                onClick={() => {
                  setOpen(false);
                  void navigate({ to: '/ledger', search: searchOf(v.address) });
                }}
              >
                {v.name}
              </button>
              <button
                data-changes
                className="small link ml-auto"
                aria-label={`Remove the view ${v.name}`}
                onClick={() => remove.mutate(v.id)}
              >
                remove
              </button>
            </p>
          ))}
          {views.data?.length === 0 && <p className="small">No view is saved yet.</p>}
          <form
            data-changes
            className="mt-2 flex items-end gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              save.mutate();
            }}
          >
            <label className="flex-1">
              <span className="small">Save what is shown now as</span>
              <input className="field" required maxLength={80} value={name} onChange={(e) => setName(e.target.value)} />
            </label>
            <button className="button" disabled={name.trim() === '' || save.isPending}>
              Save
            </button>
          </form>
          {(save.error ?? remove.error) && (
            <p role="alert" className="text-plum">
              {(save.error ?? remove.error)!.message}
            </p>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
