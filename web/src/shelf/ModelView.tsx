import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { day, deviceClass, price } from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import { Ready } from '../ui/states.tsx';
import { ModelForm } from './ModelForm.tsx';
import { OnTableButton } from './OnTableButton.tsx';

type ModelPage = Schemas['ModelPage'];
type Unit = ModelPage['units'][number];
const route = getRouteApi('/shelf/models/$modelId');

/** One model: what it is, its units, and what each of them was like when it was measured. */
export function ModelView() {
  const id = Number(route.useParams().modelId);
  const [editing, setEditing] = useState(false);
  useKeys([{ key: 'e', does: 'Edit this model', run: () => setEditing(true) }]);
  const page = useQuery({ queryKey: ['model', id], queryFn: () => value(api.GET('/api/models/{id}', { params: { path: { id } } })) });
  return (
    <Ready query={page} what="the model">
      {({ model, units }) => (
        <>
          <Opening
            title={`${model.maker} ${model.name}`}
            sentence={<>A {deviceClass(model.deviceClass)}{model.released && <>, released {day(model.released)}</>}{model.price !== undefined && model.currency && <>, {price(model.price, model.currency)}</>}.</>}
          >
            <Link to="/ledger" search={{ model: id }} className="button">Its readings</Link>
            <button className="button" onClick={() => setEditing(true)}>Edit <kbd>e</kbd></button>
          </Opening>
          {editing && <ModelForm key={model.version} model={model} onCancel={() => setEditing(false)} onSaved={() => setEditing(false)} />}
          {units.map((unit) => <UnitPart key={unit.id} unit={unit} />)}
          {units.length === 0 && <p className="mt-4 text-ink-2">No unit is here yet. One is made when a device joins the bench as this model, or now:</p>}
          <NewUnit modelId={id} />
        </>
      )}
    </Ready>
  );
}

function UnitPart({ unit }: { unit: Unit }) {
  return (
    <section className="mt-5 max-w-[900px]">
      <h2 className="border-b border-hair pb-1">{unit.label}</h2>
      {unit.configurations.length === 0 ? (
        <p className="small py-2">Not measured yet. Bring it to the bench; its configuration is noted there.</p>
      ) : (
        <ul>
          {unit.configurations.map((c) => (
            <li key={c.id} className="flex items-baseline gap-3 border-b border-hair-2 py-2" style={{ paddingLeft: 20 * depth(unit, c.parentId) }}>
              {c.parentId !== undefined && <span aria-hidden="true" className="text-ink-3">└</span>}
              <Link to="/shelf/configurations/$configurationId" params={{ configurationId: String(c.id) }} className="min-w-0 truncate font-semibold hover:underline">{c.name}</Link>
              <span className="small whitespace-nowrap">since {day(c.createdAt)}</span>
              <span className="ml-auto flex gap-4">
                <Link to="/ledger" search={{ configuration: c.id }} className="small link">readings</Link>
                <OnTableButton id={c.id} />
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** How many steps of change lie behind a configuration. */
export function depth(unit: Pick<Unit, 'configurations'>, parentId: number | undefined): number {
  let steps = 0;
  for (let at = parentId; at !== undefined && steps < 12; steps++) at = unit.configurations.find((c) => c.id === at)?.parentId;
  return steps;
}

function NewUnit({ modelId }: { modelId: number }) {
  const queries = useQueryClient();
  const [label, setLabel] = useState('');
  const add = useMutation({
    mutationFn: () => value(api.POST('/api/models/{id}/units', { params: { path: { id: modelId } }, body: { label } })),
    onSuccess: (page) => {
      queries.setQueryData(['model', modelId], page);
      setLabel('');
    },
  });
  return (
    <form className="mt-5 flex max-w-[520px] items-end gap-3" onSubmit={(event) => { event.preventDefault(); add.mutate(); }}>
      <label className="flex-1"><span className="small">Another unit of this model</span>
        <input className="field" placeholder="Label or asset tag" maxLength={80} value={label} onChange={(event) => setLabel(event.target.value)} />
      </label>
      <button className="button" disabled={label.trim() === '' || add.isPending}>Add</button>
      {add.isError && <p role="alert" className="text-plum">{add.error.message}</p>}
    </form>
  );
}
