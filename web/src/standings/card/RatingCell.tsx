import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { useId, useState, type FormEvent } from 'react';
import { useReader } from '../../access/access-context.ts';
import { api, value } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';
import { number, quantity } from '../../format/format.ts';
import { leaveFocusWhereTaken } from '../../ui/focused-before.ts';
import { RATING_WORDS, testName, type CardRow } from './card.ts';
import { Failed } from '../../ui/states.tsx';

const COLOURS = { GOOD: 'font-semibold text-leaf', AVERAGE: '', POOR: 'font-semibold text-plum' } as const;

/** Good, average or poor; a press tells by what, and sets limits of the lab's own. */
export function RatingCell({ row }: { row: CardRow }) {
  const reader = useReader();
  const [open, setOpen] = useState(false);
  const counts = row.metric.kind !== 'CHECK' && row.metric.kind !== 'CHOICE' && row.value !== undefined;
  const words = row.rating && RATING_WORDS[row.rating];
  if (!counts) return null;
  if (reader) return <span className={row.rating && COLOURS[row.rating]}>{words}</span>;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        className={`link inline-block min-h-6 min-w-6 ${row.rating ? COLOURS[row.rating] : 'small'}`}
        aria-label={`Rating of ${testName(row.metric)}: ${words ?? 'none'}; set limits`}
      >
        {words ?? '–'}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="menu w-72 p-3"
          sideOffset={4}
          collisionPadding={8}
          onCloseAutoFocus={leaveFocusWhereTaken}
        >
          <LimitsForm row={row} onDone={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const read = (text: string): number | undefined => {
  const n = Number(text.trim().replace(',', '.').replace('−', '-'));
  return text.trim() !== '' && Number.isFinite(n) ? n : undefined;
};

function LimitsForm({ row, onDone }: { row: CardRow; onDone: () => void }) {
  const { metric } = row;
  const queries = useQueryClient();
  const id = useId();
  const [good, setGood] = useState(metric.goodLimit === undefined ? '' : String(metric.goodLimit));
  const [poor, setPoor] = useState(metric.poorLimit === undefined ? '' : String(metric.poorLimit));
  const [asked, setAsked] = useState(false);
  const more = metric.direction === 'MORE_IS_BETTER';
  const unit = metric.unit === '1' ? '' : metric.unit === 'Cel' ? '°C' : metric.unit;
  const limits = { good: read(good), poor: read(poor) };
  const wrong =
    limits.good === undefined || limits.poor === undefined
      ? 'Both limits are numbers.'
      : (more ? limits.good <= limits.poor : limits.good >= limits.poor)
        ? `${more ? 'More' : 'Less'} is better here, so good begins ${more ? 'above' : 'below'} poor.`
        : undefined;
  const save = useMutation({
    mutationFn: (body: { good?: number; poor?: number }) =>
      value(api.PUT('/api/metrics/{id}/limits', { params: { path: { id: metric.id } }, body })),
    onSuccess: async () => {
      await changed(queries, 'catalogue');
      onDone();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    setAsked(true);
    if (wrong === undefined) save.mutate({ good: limits.good!, poor: limits.poor! });
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-2">
      <p className="small">
        {metric.goodLimit === undefined
          ? 'By thirds of those that ran it, from six on. Limits of your own go before them, on every card.'
          : `Good from ${quantity(metric.goodLimit, metric.unit)}, poor from ${quantity(metric.poorLimit!, metric.unit)}.`}
        {row.value !== undefined && ` This one has ${number(row.value)}${unit && ` ${unit}`}.`}
      </p>
      {(
        [
          ['Good', good, setGood, more ? 'or more' : 'or less'],
          ['Poor', poor, setPoor, more ? 'or less' : 'or more'],
        ] as const
      ).map(([name, text, set, rest]) => (
        <label key={name} htmlFor={`${id}${name}`} className="flex items-baseline gap-2">
          <span className="w-12">{name}</span>
          <input
            id={`${id}${name}`}
            className="field w-24"
            inputMode="decimal"
            value={text}
            onChange={(e) => set(e.target.value)}
          />
          <span className="small">
            {unit} {rest}
          </span>
        </label>
      ))}
      {asked && wrong && (
        <p role="alert" className="text-[13px] text-plum">
          {wrong}
        </p>
      )}
      <Failed of={save} className="text-[13px]" />
      <span className="flex gap-2">
        <button className="button button-main" disabled={save.isPending}>
          Save
        </button>
        {metric.goodLimit !== undefined && (
          <button type="button" className="button" disabled={save.isPending} onClick={() => save.mutate({})}>
            Back to thirds
          </button>
        )}
      </span>
    </form>
  );
}
