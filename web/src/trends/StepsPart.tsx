import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { times } from '../format/ratio.ts';
import { verdictWords } from '../format/verdict.ts';
import { usePrinting } from '../ui/use-printing.ts';
import { LABELS, LEFT, NARROW } from './LinesPlot.tsx';
import { changedWords, movers, type Step, type Trends } from './trends.ts';

const NAMED = 3;
const LEAST = 132;

/** What each step changed, what it did to the whole, and which tests moved most; what somebody pinned to it. */
export function StepsPart({ trends, width, toScale }: { trends: Trends; width: number; toScale: boolean }) {
  const steps = trends.steps.length;
  const printing = usePrinting();
  const between = steps < 2 ? 0 : (width - LABELS - 12 - LEFT) / (steps - 1);
  // Below their points where the steps are at equal distances and there is room.
  const aligned = !toScale && width >= NARROW && between >= LEAST;
  return (
    <ol
      className="mt-1 grid gap-x-3 gap-y-3 overflow-x-auto"
      style={
        aligned
          ? { marginLeft: LEFT, columnGap: 0, gridTemplateColumns: `repeat(${steps - 1}, ${between}px) minmax(0, 1fr)` }
          : {
              // Nothing scrolls on paper: there they take another row.
              gridTemplateColumns: `repeat(${printing ? 'auto-fill' : Math.max(1, steps)}, minmax(${LEAST}px, 1fr))`,
            }
      }
      aria-label="Steps"
      // A list that scrolls sideways is reached by the keyboard.

      tabIndex={0}
    >
      {trends.steps.map((s, i) => (
        <li key={s.key} className="min-w-0 border-l border-hair pr-2 pl-2 text-[12.5px]">
          <StepCard trends={trends} step={s} index={i} />
        </li>
      ))}
    </ol>
  );
}

function StepCard({ trends, step, index }: { trends: Trends; step: Step; index: number }) {
  const overall = trends.overall?.steps.find((s) => s.to === index);
  const told = movers(trends, index);
  const gaps = trends.gaps.filter((g) => g.step === index);
  const nameOf = (metric: number) =>
    [...trends.lines, ...trends.sides].find((l) => l.metric.id === metric)?.metric.name ?? 'a test';
  return (
    <>
      <b className="block text-[13.5px] font-semibold">{step.label}</b>
      {trends.units > 1 && <span className="small block">{step.unit}</span>}
      <span
        className="block text-ink-2"
        title={step.changed.map((c) => `${c.label}: ${c.before ?? 'not known'} → ${c.after ?? 'not known'}`).join('\n')}
      >
        {changedWords(step, trends.along, index === 0)}
      </span>
      {overall && (
        <span className="block">
          {times(overall.ratio, 3)}, {verdictWords(overall.verdict)}{' '}
          <span className="text-ink-3">
            ({times(overall.low, 3)} to {times(overall.high, 3)})
          </span>
        </span>
      )}
      {told.slice(0, NAMED).map(({ line, change }) => (
        <span key={line.metric.id} className={`block ${change.ratio > 1 ? 'text-leaf' : 'text-plum'}`}>
          {line.metric.name} {change.size}
        </span>
      ))}
      {told.length > NAMED && <span className="block text-ink-3">and {told.length - NAMED} more</span>}
      {gaps.slice(0, 2).map((g) => (
        <span key={g.metricId} className="block text-ink-3">
          {nameOf(g.metricId)}: {g.words}
        </span>
      ))}
      {step.events.map((e) => (
        <EventLine key={e.id} id={e.id} words={e.words} />
      ))}
      <PinEvent model={trends.modelId} step={step.key} label={step.label} />
    </>
  );
}

function EventLine({ id, words }: { id: number; words: string }) {
  const queries = useQueryClient();
  const remove = useMutation({
    mutationFn: () => value(api.DELETE('/api/trends/events/{id}', { params: { path: { id } } })),
    onSuccess: () => void queries.invalidateQueries({ queryKey: ['trends'] }),
  });
  return (
    <span className="block text-gold-ink">
      {words}{' '}
      <button
        data-changes
        className="small link print:hidden"
        aria-label={`Remove “${words}”`}
        onClick={() => remove.mutate()}
      >
        remove
      </button>
    </span>
  );
}

function PinEvent({ model, step, label }: { model: number; step: string; label: string }) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const pin = useMutation({
    mutationFn: () => value(api.POST('/api/trends/events', { body: { model, step, words } })),
    onSuccess: () => {
      setOpen(false);
      setWords('');
      void queries.invalidateQueries({ queryKey: ['trends'] });
    },
  });
  if (!open)
    return (
      <button
        data-changes
        className="small link print:hidden"
        aria-label={`Note something at ${label}`}
        onClick={() => setOpen(true)}
      >
        note
      </button>
    );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        pin.mutate();
      }}
      onKeyDown={(e) => {
        if (e.key === 'Escape') setOpen(false);
      }}
    >
      <input
        className="field"
        autoFocus
        required
        maxLength={200}
        aria-label={`What happened at ${label}`}
        placeholder="new thermal paste"
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      {pin.isError && (
        <span role="alert" className="text-plum">
          {pin.error.message}
        </span>
      )}
      <button className="small link" disabled={pin.isPending || words.trim() === ''}>
        save
      </button>{' '}
      <button type="button" className="small link" onClick={() => setOpen(false)}>
        cancel
      </button>
    </form>
  );
}
