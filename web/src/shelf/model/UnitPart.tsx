import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import { day } from '../../format/format.ts';
import type { RowProps } from '../../ui/useRows.ts';
import { dueWords } from './due.ts';
import { FieldLine } from '../part/FieldLine.tsx';
import { HistoryPart } from '../part/HistoryPart.tsx';
import { OnTableButton } from '../part/OnTableButton.tsx';
import { inTree } from './tree.ts';

type ModelPage = Schemas['ModelPage'];
export type Unit = ModelPage['units'][number];

/** One specimen: what it is, when it must go back, and the tree of its configurations. */
export function UnitPart({
  model,
  unit,
  rowOf,
  onPage,
}: {
  model: number;
  unit: Unit;
  rowOf: (configuration: number) => RowProps | undefined;
  onPage: (page: ModelPage) => void;
}) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const path = { params: { path: { id: unit.id } } };
  const retire = useMutation({
    mutationFn: (retired: boolean) => value(api.PUT('/api/units/{id}/retired', { ...path, body: { retired } })),
    onSuccess: onPage,
  });
  const remove = useMutation({
    mutationFn: () => value(api.DELETE('/api/units/{id}', path)),
    onSuccess: () => void queries.invalidateQueries({ queryKey: ['model'] }),
  });
  const rows = inTree(unit.configurations.filter((c) => c.mergedInto === undefined));
  return (
    <section className="mt-5">
      <div className="flex flex-wrap items-baseline gap-3 border-b border-hair pb-1">
        <h2>{unit.label}</h2>
        {unit.retired && (
          <span className="pill" data-tone="off">
            retired
          </span>
        )}
        {unit.dueBack && !unit.retired && (
          <span className="pill" data-tone={dueWords(unit.dueBack).late ? 'bad' : 'wait'}>
            {dueWords(unit.dueBack).words}
          </span>
        )}
        <span className="small">
          {unit.fields
            .filter((f) => (f.name === 'serial' || f.name === 'origin') && f.shown)
            .map((f) => f.shown)
            .join(', ')}
        </span>
        <button className="small link ml-auto" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'less' : 'serial, loan, history'}
        </button>
        {rows.length > 1 && (
          <Link to="/trends" search={{ model, unit: unit.id }} className="small link">
            trends
          </Link>
        )}
        <Link data-changes to="/shelf/configure" search={{ unit: unit.id }} className="small link">
          new configuration
        </Link>
      </div>
      {open && (
        <div className="max-w-[520px] py-2">
          {unit.fields.map((field) => (
            <FieldLine
              key={field.name}
              field={field}
              onSaved={onPage}
              save={(seen, text) =>
                value(
                  api.PUT('/api/units/{id}/fields/{field}', {
                    params: { path: { id: unit.id, field: field.name } },
                    body: { ...(seen === undefined ? {} : { seen }), text },
                  }),
                )
              }
            />
          ))}
          <p className="mt-2 flex gap-3">
            <button data-changes className="small link" onClick={() => retire.mutate(!unit.retired)}>
              {unit.retired ? 'Bring it back' : 'Retire this unit'}
            </button>
            {unit.configurations.length === 0 && (
              <button data-changes className="small link" onClick={() => remove.mutate()}>
                Remove
              </button>
            )}
            {(retire.error ?? remove.error) && (
              <span role="alert" className="text-plum">
                {(retire.error ?? remove.error)!.message}
              </span>
            )}
          </p>
          <HistoryPart
            subject="unit"
            id={unit.id}
            onUndone={() => void queries.invalidateQueries({ queryKey: ['model'] })}
          />
        </div>
      )}
      {rows.length === 0 ? (
        <p className="small py-2">
          No configuration yet. Bring it to the bench, where most of it is detected, or note it now.
        </p>
      ) : (
        <ul>
          {rows.map(({ item: c, depth }) => (
            <li
              key={c.id}
              {...rowOf(c.id)}
              className={`flex flex-wrap items-baseline gap-x-3 border-b border-hair-2 py-2 pr-1 -outline-offset-2 data-[active-row=true]:bg-band ${c.retired ? 'text-ink-3' : ''}`}
              style={{ paddingLeft: 6 + 20 * depth }}
            >
              {depth > 0 && (
                <span aria-hidden="true" className="text-ink-3">
                  └
                </span>
              )}
              <Link
                to="/shelf/configurations/$configurationId"
                params={{ configurationId: String(c.id) }}
                className="min-w-0 truncate font-semibold hover:underline"
              >
                {c.name}
              </Link>
              <span className="small whitespace-nowrap">
                since {day(c.createdAt)},{' '}
                {c.sessions === 0 ? 'not measured' : `${c.sessions} ${c.sessions === 1 ? 'session' : 'sessions'}`}
                {c.retired && ', retired'}
              </span>
              {c.sessions > 0 && (
                <Link
                  to="/shelf/configurations/$configurationId/card"
                  params={{ configurationId: String(c.id) }}
                  className="small link"
                  aria-label={`report card of ${c.name}`}
                >
                  report card
                </Link>
              )}
              <span className="ml-auto flex gap-4">
                <Link
                  data-changes
                  to="/shelf/configure"
                  search={{ unit: unit.id, from: c.id }}
                  className="small link whitespace-nowrap"
                >
                  copy and change
                </Link>
                <OnTableButton id={c.id} />
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
