import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';

type ConfigurationPage = Schemas['ConfigurationPage'];

export function Notices({ page, onPage }: { page: ConfigurationPage; onPage: (page: ConfigurationPage) => void }) {
  const id = page.configuration.id;
  const queries = useQueryClient();
  const pick = useMutation({
    mutationFn: ({ key, other }: { key: string; other: boolean }) =>
      value(api.POST('/api/configurations/{id}/picks', { params: { path: { id } }, body: { key, other } })),
    onSuccess: onPage,
  });
  const merge = useMutation({
    mutationFn: async (from: number) => {
      await value(api.POST('/api/configurations/{id}/merge', { params: { path: { id: from } }, body: { into: id } }));
      return value(api.GET('/api/configurations/{id}', { params: { path: { id } } }));
    },
    onSuccess: (next) => {
      onPage(next);
      void changed(queries, 'scores');
    },
  });
  const doubts = page.facts.filter((f) => f.other !== undefined);
  const error = pick.error ?? merge.error;
  return (
    <div className="mb-3 empty:hidden">
      {page.mergedInto !== undefined && (
        <p className="border-l-2 border-gold py-1 pl-3">
          It turned out to be the same as another one; its sessions are{' '}
          <Link
            to="/shelf/configurations/$configurationId"
            params={{ configurationId: String(page.mergedInto) }}
            className="link"
          >
            there
          </Link>
          .
        </p>
      )}
      {doubts.map((f) => (
        <p key={f.key} className="flex flex-wrap items-center gap-3 border-l-2 border-gold py-1.5 pl-3">
          <span>
            <b className="font-semibold">{f.label}</b>: the device says {f.shown}, what was typed is {f.other}. Which is
            right?
          </span>
          <button data-changes className="button" onClick={() => pick.mutate({ key: f.key, other: false })}>
            {f.shown}, as detected
          </button>
          <button data-changes className="button" onClick={() => pick.mutate({ key: f.key, other: true })}>
            {f.other}, as typed
          </button>
        </p>
      ))}
      {page.contradictory.map((reason) => (
        <p key={reason} className="border-l-2 border-plum py-1 pl-3">
          {reason} Correct one of them.
        </p>
      ))}
      {page.mergedInto === undefined &&
        page.sameFacts.map((same) => (
          <p
            key={same.configuration.id}
            className="flex flex-wrap items-center gap-3 border-l-2 border-gold py-1.5 pl-3"
          >
            <span>
              <Link
                to="/shelf/configurations/$configurationId"
                params={{ configurationId: String(same.configuration.id) }}
                className="link"
              >
                {same.configuration.name}
              </Link>{' '}
              of {same.mergeable ? 'this unit' : same.configuration.unit} has exactly the same facts.
            </span>
            {same.mergeable && (
              <button
                data-changes
                className="button"
                disabled={merge.isPending}
                onClick={() => merge.mutate(same.configuration.id)}
              >
                Move its sessions here
              </button>
            )}
          </p>
        ))}
      {error && (
        <p role="alert" className="pl-3 text-plum">
          {error.message}
        </p>
      )}
    </div>
  );
}
