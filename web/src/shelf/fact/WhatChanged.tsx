import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';
import { Failed } from '../../ui/states.tsx';

type ConfigurationPage = Schemas['ConfigurationPage'];

/** The facts that differ from the configuration it was copied from, and which of them is under test. */
export function WhatChanged({ page }: { page: ConfigurationPage }) {
  if (page.parentId === undefined) return null;
  return (
    <section className="mb-6">
      <h2>What changed</h2>
      <p className="small">
        since{' '}
        <Link
          to="/shelf/configurations/$configurationId"
          params={{ configurationId: String(page.parentId) }}
          className="link"
        >
          {page.parentName}
        </Link>
      </p>
      {page.changed.map((fact) => (
        <p key={fact.key} className="border-b border-hair-2 py-1.5">
          {fact.label}{' '}
          <b className="font-semibold">
            {fact.before ?? 'not known'} → {fact.after ?? 'not known'}
          </b>
          {page.tested.includes(fact.key) && <span className="pill ml-2">under test</span>}
        </p>
      ))}
      {page.changed.length > 1 && page.tested.length === 0 && <UnderTest page={page} />}
      <Link to="/shelf/difference" search={{ ids: [page.parentId, page.configuration.id] }} className="small link">
        all facts side by side <kbd>d</kbd>
      </Link>
      <Link
        to="/compare"
        search={{ ids: [page.parentId, page.configuration.id], base: page.parentId }}
        className="small link ml-4"
      >
        its scores before and after
      </Link>
    </section>
  );
}

/** Of several changes somebody has to say which one is looked at; a single one is marked when the copy is made. */
function UnderTest({ page }: { page: ConfigurationPage }) {
  const queries = useQueryClient();
  const mark = useMutation({
    mutationFn: (keys: string[]) =>
      value(
        api.PUT('/api/configurations/{id}/tested', {
          params: { path: { id: page.configuration.id } },
          body: { keys },
        }),
      ),
    onSuccess: () => {
      void changed(queries, 'shelf');
    },
  });
  return (
    <div data-changes role="note" className="my-2 border-l-2 border-gold pl-3">
      <p>Which of these is the change under test? The others then count as also changed.</p>
      <p className="flex flex-wrap gap-x-4">
        {page.changed.map((fact) => (
          <button
            key={fact.key}
            className="link small"
            disabled={mark.isPending}
            onClick={() => mark.mutate([fact.key])}
          >
            {fact.label}
          </button>
        ))}
        <button
          className="link small"
          disabled={mark.isPending}
          onClick={() => mark.mutate(page.changed.map((f) => f.key))}
        >
          all of them together
        </button>
      </p>
      <Failed of={mark} />
    </div>
  );
}
