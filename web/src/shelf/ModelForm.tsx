import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useId, useState, type ReactNode } from 'react';
import { api, Problem, value, type Schemas } from '../api/client.ts';
import { DEVICE_CLASSES, deviceClass, type DeviceClass } from '../format/format.ts';

type ModelPage = Schemas['ModelPage'];

/** What is typed, before it is known to make sense. */
interface Typed {
  maker: string;
  name: string;
  deviceClass: DeviceClass;
  price: string;
  currency: string;
  released: string;
}

/** Makes a model, or changes the one given. In place on the page; what is typed stays until it is saved or cancelled. */
export function ModelForm({ model, onSaved, onCancel }: { model?: ModelPage['model']; onSaved: (page: ModelPage) => void; onCancel: () => void }) {
  const makersId = useId();
  const queries = useQueryClient();
  const makers = useQuery({ queryKey: ['makers'], queryFn: () => value(api.GET('/api/makers')) });
  const [typed, setTyped] = useState<Typed>({
    maker: model?.maker ?? '', name: model?.name ?? '', deviceClass: model?.deviceClass ?? 'LAPTOP',
    price: model?.price?.toString() ?? '', currency: model?.currency ?? 'EUR', released: model?.released ?? '',
  });
  const [version, setVersion] = useState(model?.version ?? 0);
  const amount = readPrice(typed.price);
  const save = useMutation({
    mutationFn: () => {
      const body = {
        maker: typed.maker.trim(), name: typed.name.trim(), deviceClass: typed.deviceClass,
        ...(amount ? { price: amount, currency: typed.currency.toUpperCase() } : {}), ...(typed.released ? { released: typed.released } : {}),
      };
      return model
        ? value(api.PUT('/api/models/{id}', { params: { path: { id: model.id } }, body: { version, model: body } }))
        : value(api.POST('/api/models', { body }));
    },
    onSuccess: (page) => {
      void queries.invalidateQueries({ queryKey: ['models'] });
      void queries.invalidateQueries({ queryKey: ['makers'] });
      queries.setQueryData(['model', page.model.id], page);
      onSaved(page);
    },
  });
  const set = (change: Partial<Typed>) => setTyped({ ...typed, ...change });
  const clash = save.error instanceof Problem && save.error.code === 'changed-meanwhile';

  return (
    <form className="my-3 max-w-[720px] border-y border-hair bg-sheet px-4 py-3" onKeyDown={(event) => event.key === 'Escape' && onCancel()}
      onSubmit={(event) => { event.preventDefault(); save.mutate(); }}>
      <div className="grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-3">
        <Field label="Maker">
          <input className="field" value={typed.maker} maxLength={120} required list={makersId} autoFocus onChange={(e) => set({ maker: e.target.value })} />
          <datalist id={makersId}>{makers.data?.map((name) => <option key={name} value={name} />)}</datalist>
        </Field>
        <Field label="Model"><input className="field" value={typed.name} maxLength={120} required onChange={(e) => set({ name: e.target.value })} /></Field>
        <Field label="Class">
          <select className="field" value={typed.deviceClass} onChange={(e) => set({ deviceClass: e.target.value as DeviceClass })}>
            {DEVICE_CLASSES.map((c) => <option key={c} value={c}>{deviceClass(c)}</option>)}
          </select>
        </Field>
        <Field label="Price">
          <span className="flex gap-2">
            <input className="field" inputMode="decimal" value={typed.price} aria-invalid={amount === null} onChange={(e) => set({ price: e.target.value })} />
            <input className="field !w-14 uppercase" aria-label="Currency" maxLength={3} value={typed.currency} onChange={(e) => set({ currency: e.target.value })} />
          </span>
        </Field>
        <Field label="Released"><input className="field" type="date" value={typed.released} onChange={(e) => set({ released: e.target.value })} /></Field>
      </div>
      {amount === null && <p className="mt-2 text-plum">A price is a number, such as 1299 or 1 299,50.</p>}
      <p role="alert" className="mt-2 text-plum">{save.error?.message}</p>
      {clash && (
        <button type="button" className="link" onClick={async () => { const now = await value(api.GET('/api/models/{id}', { params: { path: { id: model!.id } } })); setVersion(now.model.version); save.reset(); queries.setQueryData(['model', model!.id], now); }}>
          Look at the new state and keep my words
        </button>
      )}
      <div className="mt-3 flex gap-2">
        <button className="button button-main" disabled={save.isPending || amount === null}>{model ? 'Save' : 'Put it on the shelf'}</button>
        <button type="button" className="button" onClick={onCancel}>Cancel</button>
      </div>
    </form>
  );
}

function Field({ label, children }: { label: string; children: ReactNode }) {
  return <label className="block"><span className="small">{label}</span>{children}</label>;
}

/** "1299", "1 299,50" and "1'299.50"; undefined where nothing is typed, null where it is no price. */
export function readPrice(text: string): number | undefined | null {
  const plain = text.trim().replace(/[\s\u202f']/g, '');
  if (plain === '') return undefined;
  if (!/^\d{1,10}([.,]\d{1,2})?$/.test(plain)) return null;
  const amount = Number(plain.replace(',', '.'));
  return amount > 0 ? amount : null;
}
