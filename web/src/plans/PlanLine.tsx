import { useState } from 'react';
import type { Schemas } from '../api/client.ts';
import { numberOf, type PlanItem, type withItem } from './draft.ts';
import { byItself } from '../suites/suites.ts';
import { ownWords } from './own-words.ts';

/** A test of a plan that is being written, and what it wants otherwise than the plan. */
export function PlanLine({
  item: it,
  test: t,
  folded,
  first,
  last,
  onChange,
  onMove,
  onRemove,
}: {
  item: PlanItem;
  test: Schemas['TestRow'] | undefined;
  /** One line, until it is opened. */
  folded: boolean;
  first: boolean;
  last: boolean;
  onChange: (change: Parameters<typeof withItem>[2]) => void;
  onMove: (step: 1 | -1) => void;
  onRemove: () => void;
}) {
  const [open, setOpen] = useState(false);
  const small = (
    label: string,
    of: number | undefined,
    unit: number,
    onSet: (n: number | undefined) => void,
    width = 'w-16',
  ) => (
    <label className="flex items-baseline gap-1">
      <span className="small">{label}</span>
      <input
        className={`field ${width}`}
        inputMode="decimal"
        placeholder="–"
        defaultValue={of === undefined ? '' : of / unit}
        onChange={(e) => {
          const n = numberOf(e.target.value);
          onSet(n === undefined ? undefined : n * unit);
        }}
      />
    </label>
  );
  return (
    <li className="flex flex-wrap items-baseline gap-x-4 border-b border-hair-2 py-1">
      <span className="w-56 font-semibold">
        {t?.name}{' '}
        <span className="small font-normal">
          {t && byItself(t) ? (t.command ? 'by the runner' : 'by itself') : 'by hand'}
        </span>
      </span>
      {folded && !open ? (
        <button
          type="button"
          className="small link"
          aria-label={`Change ${t?.name ?? ''}`}
          onClick={() => setOpen(true)}
        >
          {ownWords(it, t).join(', ') || 'as the plan says'}
        </button>
      ) : (
        <>
          {small('runs', it.runs, 1, (runs) => onChange({ runs }), 'w-12')}
          {small('pause s', it.pauseMs, 1000, (pauseMs) => onChange({ pauseMs }))}
          {small('or until °C', it.pauseUntil, 1, (pauseUntil) => onChange({ pauseUntil }))}
          {t?.builtIn &&
            !t.key.startsWith('battery-') &&
            (t.key.startsWith('endurance-')
              ? small('minutes', it.timedMs, 60_000, (timedMs) => onChange({ timedMs }), 'w-12')
              : small('timed s', it.timedMs, 1000, (timedMs) => onChange({ timedMs })))}
          {small('at most s', it.allowedMs, 1000, (allowedMs) => onChange({ allowedMs }))}
          <label className="flex items-baseline gap-1">
            <input
              type="checkbox"
              className="accent-leaf"
              checked={it.nice}
              onChange={(e) => onChange({ nice: e.target.checked })}
            />
            <span className="small">nice to have</span>
          </label>
          {t && !byItself(t) && (
            <input
              className="field min-w-52 flex-1"
              maxLength={500}
              aria-label={`What to do for ${t.name}`}
              placeholder="what to do, under which conditions"
              value={it.todo ?? ''}
              onChange={(e) => onChange({ todo: e.target.value || undefined })}
            />
          )}
        </>
      )}
      <span className="ml-auto flex gap-3">
        <button
          type="button"
          className="small link"
          aria-label={`Move ${t?.name ?? ''} up`}
          disabled={first}
          onClick={() => onMove(-1)}
        >
          up
        </button>
        <button
          type="button"
          className="small link"
          aria-label={`Move ${t?.name ?? ''} down`}
          disabled={last}
          onClick={() => onMove(1)}
        >
          down
        </button>
        <button type="button" className="small link" aria-label={`Remove ${t?.name ?? ''}`} onClick={onRemove}>
          remove
        </button>
      </span>
    </li>
  );
}
