import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useId, type ReactNode } from 'react';
import { Link } from '@tanstack/react-router';
import { api, Problem, value, type Schemas } from '../../api/client.ts';
import { DraftNote, useDraft } from '../../unsent/draft.tsx';
import { DEVICE_CLASSES, deviceClass, type DeviceClass } from '../../format/format.ts';

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

const NOTHING: Typed = { maker: '', name: '', deviceClass: 'LAPTOP', price: '', currency: 'EUR', released: '' };

/** Makes a model. In place on the page; what is typed stays until it is saved or cancelled. The rest is noted on its page. */
export function ModelForm({ onSaved, onCancel }: { onSaved: (page: ModelPage) => void; onCancel: () => void }) {
  const makersId = useId();
  const queries = useQueryClient();
  const makers = useQuery({ queryKey: ['makers'], queryFn: () => value(api.GET('/api/makers')) });
  const draft = useDraft<Typed>('model', NOTHING);
  const typed = draft.value;
  const amount = readPrice(typed.price);
  const save = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/models', {
          body: {
            maker: typed.maker.trim(),
            name: typed.name.trim(),
            deviceClass: typed.deviceClass,
            ...(amount ? { price: amount, currency: typed.currency.toUpperCase() } : {}),
            ...(typed.released ? { released: typed.released } : {}),
          },
        }),
      ),
    onSuccess: (page) => {
      draft.forget();
      void queries.invalidateQueries({ queryKey: ['models'] });
      void queries.invalidateQueries({ queryKey: ['makers'] });
      queries.setQueryData(['model', page.model.id], page);
      onSaved(page);
    },
  });
  const set = (change: Partial<Typed>) => draft.set({ ...typed, ...change });
  const twin = save.error instanceof Problem ? save.error.body.modelId : undefined;

  return (
    <form
      className="my-3 max-w-[720px] border-y border-hair bg-sheet px-4 py-3"
      onKeyDown={(event) => event.key === 'Escape' && onCancel()}
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <DraftNote draft={draft} />
      <div className="grid grid-cols-2 gap-x-6 gap-y-3 sm:grid-cols-3">
        <Labelled label="Maker">
          <input
            className="field"
            value={typed.maker}
            maxLength={120}
            required
            list={makersId}
            autoFocus
            onChange={(e) => set({ maker: e.target.value })}
          />
          <datalist id={makersId}>
            {makers.data?.map((name) => (
              <option key={name} value={name} />
            ))}
          </datalist>
        </Labelled>
        <Labelled label="Model">
          <input
            className="field"
            value={typed.name}
            maxLength={120}
            required
            onChange={(e) => set({ name: e.target.value })}
          />
        </Labelled>
        <Labelled label="Class">
          <select
            className="field"
            value={typed.deviceClass}
            onChange={(e) => set({ deviceClass: e.target.value as DeviceClass })}
          >
            {DEVICE_CLASSES.map((c) => (
              <option key={c} value={c}>
                {deviceClass(c)}
              </option>
            ))}
          </select>
        </Labelled>
        <Labelled label="Price">
          <span className="flex gap-2">
            <input
              className="field"
              inputMode="decimal"
              value={typed.price}
              aria-invalid={amount === null}
              onChange={(e) => set({ price: e.target.value })}
            />
            <input
              className="field w-14 uppercase"
              aria-label="Currency"
              maxLength={3}
              value={typed.currency}
              onChange={(e) => set({ currency: e.target.value })}
            />
          </span>
        </Labelled>
        <Labelled label="Released">
          <input
            className="field"
            type="date"
            value={typed.released}
            onChange={(e) => set({ released: e.target.value })}
          />
        </Labelled>
      </div>
      {amount === null && <p className="mt-2 text-plum">A price is a number, such as 1299 or 1 299,50.</p>}
      <p role="alert" className="mt-2 text-plum">
        {save.error?.message}{' '}
        {twin !== undefined && (
          <Link to="/shelf/models/$modelId" params={{ modelId: String(twin) }} className="link">
            Open it
          </Link>
        )}
      </p>
      <div className="mt-3 flex gap-2">
        <button className="button button-main" disabled={save.isPending || amount === null}>
          Save model
        </button>
        <button type="button" className="button" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </form>
  );
}

function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="block">
      <span className="small">{label}</span>
      {children}
    </label>
  );
}

/** "1299", "1 299,50" and "1'299.50"; undefined where nothing is typed, null where it is no price. */
export function readPrice(text: string): number | undefined | null {
  const plain = text.trim().replace(/[\s\u202f']/g, '');
  if (plain === '') return undefined;
  if (!/^\d{1,10}([.,]\d{1,2})?$/.test(plain)) return null;
  const amount = Number(plain.replace(',', '.'));
  return amount > 0 ? amount : null;
}
