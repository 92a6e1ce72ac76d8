import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link, useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import { api, sendFile, value, type Schemas } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';
import { day, deviceClass, moment, number, price } from '../../format/format.ts';
import { useKeys } from '../../shell/keys.ts';
import { Opening } from '../../shell/Opening.tsx';
import { tableActions } from '../../shell/table-store.ts';
import { Ready, Failed } from '../../ui/states.tsx';
import { useRows } from '../../ui/useRows.ts';
import { ClaimsPart } from './ClaimsPart.tsx';
import { FieldLine } from '../part/FieldLine.tsx';
import { HistoryPart } from '../part/HistoryPart.tsx';
import { ReferencesPart } from './ReferencesPart.tsx';
import { PlacesPart } from './PlacesPart.tsx';
import { UnitPart } from './UnitPart.tsx';
import { aboutThese } from '../../writeup/question/begin.ts';
import { WriteUpButton } from '../../writeup/question/WriteUpButton.tsx';
import { WriteUpsOfModel } from '../../writeup/WriteUpsOfModel.tsx';

type ModelPage = Schemas['ModelPage'];
const route = getRouteApi('/shelf/models/$modelId');

/** One model: what it is, its units with their configurations, its sessions, its best places and what is claimed of it. */
export function ModelView() {
  const id = Number(route.useParams().modelId);
  const page = useQuery({
    queryKey: ['model', id],
    queryFn: () => value(api.GET('/api/models/{id}', { params: { path: { id } } })),
  });
  return (
    <Ready query={page} what="the model">
      {(data) => <Model key={id} page={data} />}
    </Ready>
  );
}

function Model({ page }: { page: ModelPage }) {
  const { model, units } = page;
  const navigate = useNavigate();
  const queries = useQueryClient();
  const show = (next: ModelPage) => {
    queries.setQueryData(['model', model.id], next);
    void changed(queries, 'shelf');
  };
  const path = { params: { path: { id: model.id } } };
  const retire = useMutation({
    mutationFn: (retired: boolean) => value(api.PUT('/api/models/{id}/retired', { ...path, body: { retired } })),
    onSuccess: show,
  });
  const remove = useMutation({
    mutationFn: () => value(api.DELETE('/api/models/{id}', path)),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: ['models'] });
      void navigate({ to: '/shelf' });
    },
  });
  const rows = units.flatMap((unit) =>
    unit.configurations.filter((c) => c.mergedInto === undefined).map((c) => ({ ...c, unit: unit.id })),
  );
  const { active, propsOf } = useRows(rows, (c) => c.id, [
    {
      key: 'Enter',
      does: 'Open the configuration',
      run: (c) =>
        void navigate({ to: '/shelf/configurations/$configurationId', params: { configurationId: String(c.id) } }),
    },
    { key: 't', does: 'Put it on the table, or take it off', run: (c) => void tableActions.toggle(c.id) },
    {
      key: 'c',
      does: 'Copy it and change facts',
      changes: true,
      run: (c) => void navigate({ to: '/shelf/configure', search: { unit: c.unit, from: c.id } }),
    },
  ]);
  const rowProps = new Map(rows.map((row) => [row.id, propsOf(row)]));
  const unit = active?.unit ?? units.find((u) => !u.retired)?.id;
  useKeys(
    unit === undefined
      ? []
      : [
          {
            key: 'n',
            does: 'New configuration',
            changes: true,
            run: () => void navigate({ to: '/shelf/configure', search: { unit } }),
          },
        ],
  );

  return (
    <>
      <Opening
        title={`${model.maker} ${model.name}`}
        sentence={
          <>
            A {deviceClass(model.deviceClass)}
            {model.released && <>, released {day(model.released)}</>}
            {model.price !== undefined && model.currency && <>, {price(model.price, model.currency)}</>}
            {model.retired && ', retired'}.
          </>
        }
      >
        <Link
          to="/standings"
          search={{ classes: [model.deviceClass], form: 'charts', lit: rows.find((c) => c.sessions > 0)?.id }}
          className="button"
        >
          Charts
        </Link>
        <Link to="/trends" search={{ model: model.id }} className="button">
          Its trends
        </Link>
        <Link to="/ledger" search={{ model: model.id }} className="button">
          Its readings
        </Link>
        <WriteUpButton
          beginning={() => {
            const all = rows
              .filter((c) => !c.retired)
              .map((c) => ({
                id: c.id,
                modelId: model.id,
                maker: model.maker,
                model: model.name,
                deviceClass: model.deviceClass,
                unit: '',
                name: c.name,
                retired: false,
              }));
            // What a reader buys comes first: as it was delivered, and then everything it was set up as since.
            return { ...aboutThese(all, undefined), title: `${model.maker} ${model.name}` };
          }}
        />
      </Opening>
      <div className="grid gap-x-10 lg:grid-cols-[1fr_330px]">
        <div className="min-w-0">
          {units.map((u) => (
            <UnitPart key={u.id} model={model.id} unit={u} rowOf={(id) => rowProps.get(id)} onPage={show} />
          ))}
          {units.length === 0 && (
            <p className="mt-4 text-ink-2">
              No unit is here yet. One is made when a device joins the bench as this model, or now:
            </p>
          )}
          <NewUnit modelId={model.id} onPage={show} />
          <ClaimsPart modelId={model.id} />
          <ReferencesPart modelId={model.id} />
          <PlacesPart id={model.id} />
          <WriteUpsOfModel id={model.id} />
          <Sessions id={model.id} />
        </div>
        <aside className="min-w-0">
          <Photo model={model} onPage={show} />
          <h2 className="border-b border-hair pb-0.5">What it is</h2>
          {page.fields.map((field) => (
            <FieldLine
              key={field.name}
              field={field}
              onSaved={show}
              long={field.name === 'notes'}
              save={(seen, text) =>
                value(
                  api.PUT('/api/models/{id}/fields/{field}', {
                    params: { path: { id: model.id, field: field.name } },
                    body: { ...(seen === undefined ? {} : { seen }), text },
                  }),
                )
              }
            />
          ))}
          {page.derived.map((d) => (
            <div key={d.label} className="flex gap-3 border-b border-hair-2 py-1">
              <span className="text-ink-2">{d.label}</span>
              <span className="small text-ink-3">follows</span>
              <span className="ml-auto pr-1">
                {number(d.value, 3)} {d.unit}
              </span>
            </div>
          ))}
          <p className="mt-3 flex gap-4">
            <button data-changes className="small link" onClick={() => retire.mutate(!model.retired)}>
              {model.retired ? 'Bring it back to the shelf' : 'Retire this model'}
            </button>
            {units.length === 0 && (
              <button data-changes className="small link" onClick={() => remove.mutate()}>
                Remove
              </button>
            )}
          </p>
          {(retire.error ?? remove.error) && (
            <p role="alert" className="text-plum">
              {(retire.error ?? remove.error)!.message}
            </p>
          )}
          <HistoryPart
            subject="model"
            id={model.id}
            onUndone={() => void queries.invalidateQueries({ queryKey: ['model', model.id] })}
          />
        </aside>
      </div>
    </>
  );
}

function Photo({ model, onPage }: { model: ModelPage['model']; onPage: (page: ModelPage) => void }) {
  const send = useMutation({
    mutationFn: (file: File) => sendFile<ModelPage>(`/api/models/${model.id}/photo`, file),
    onSuccess: onPage,
  });
  const away = useMutation({
    mutationFn: () => value(api.DELETE('/api/models/{id}/photo', { params: { path: { id: model.id } } })),
    onSuccess: onPage,
  });
  return (
    <div className="mb-4">
      {model.photo && (
        <img
          src={`/api/files/${model.photo}`}
          alt={`${model.maker} ${model.name}`}
          className="max-h-52 w-full rounded-lg object-contain"
        />
      )}
      <p className="flex gap-4">
        <label className="small link cursor-pointer focus-within:outline-2 focus-within:outline-gold">
          {send.isPending ? 'Sending the photo' : model.photo ? 'another photo' : 'add a photo'}
          <input
            type="file"
            accept="image/*"
            className="sr-only"
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) send.mutate(file);
              e.target.value = '';
            }}
          />
        </label>
        {model.photo && (
          <button data-changes className="small link" onClick={() => away.mutate()}>
            remove
          </button>
        )}
      </p>
      {(send.error ?? away.error) && (
        <p role="alert" className="text-plum">
          {(send.error ?? away.error)!.message}
        </p>
      )}
    </div>
  );
}

function NewUnit({ modelId, onPage }: { modelId: number; onPage: (page: ModelPage) => void }) {
  const [label, setLabel] = useState('');
  const add = useMutation({
    mutationFn: () => value(api.POST('/api/models/{id}/units', { params: { path: { id: modelId } }, body: { label } })),
    onSuccess: (page) => {
      onPage(page);
      setLabel('');
    },
  });
  return (
    <form
      data-changes
      className="mt-4 flex max-w-[520px] items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate();
      }}
    >
      <label className="flex-1">
        <span className="small">Another unit of this model</span>
        <input
          className="field"
          placeholder="Label or asset tag"
          maxLength={80}
          value={label}
          onChange={(event) => setLabel(event.target.value)}
        />
      </label>
      <button className="button" disabled={label.trim() === '' || add.isPending}>
        Add
      </button>
      <Failed of={add} />
    </form>
  );
}

function Sessions({ id }: { id: number }) {
  const sessions = useQuery({
    queryKey: ['model', id, 'sessions'],
    queryFn: () => value(api.GET('/api/models/{id}/sessions', { params: { path: { id } } })),
  });
  return (
    <section className="mt-7">
      <h2 className="border-b border-hair pb-0.5">Sessions</h2>
      <Ready query={sessions} what="its sessions">
        {(list) =>
          list.length === 0 ? (
            <p className="small py-2">Not measured yet.</p>
          ) : (
            <ul>
              {list.map((s) => {
                const missed = s.checks.filter((c) => !c.ticked);
                return (
                  <li key={s.id} className="flex flex-wrap items-baseline gap-x-3 border-b border-hair-2 py-1.5">
                    <Link to="/ledger" search={{ session: s.id }} className="font-semibold hover:underline">
                      {s.planName}
                    </Link>
                    <span className="small">{moment(s.startedAt)}</span>
                    <span className="small">
                      {s.configuration.unit}, {s.configuration.name}
                    </span>
                    <span className="small ml-auto">
                      {s.state.toLowerCase()}
                      {s.checks.length > 0 && (missed.length === 0 ? `, all ${s.checks.length} checks ticked` : '')}
                    </span>
                    {missed.length > 0 && (
                      <span className="small w-full text-gold-ink">
                        Not ticked: {missed.map((c) => c.text).join('; ')}
                      </span>
                    )}
                  </li>
                );
              })}
            </ul>
          )
        }
      </Ready>
    </section>
  );
}
