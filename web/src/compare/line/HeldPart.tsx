import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../../api/client.ts';
import { changed } from '../../api/made-from.ts';
import { markReason } from '../../format/format.ts';
import { Failed } from '../../ui/states.tsx';

/** Where a display seems to hold a side: what that does to the overall, and deciding against it with a reason. */
export function HeldPart({ data, comparison }: { data: Schemas['ComparedMetric']; comparison: Schemas['Comparison'] }) {
  const named = [comparison.base, ...comparison.sides.map((s) => s.configuration)];
  const held = data.sides.flatMap((s) => {
    const mark = s.readings.flatMap((r) => r.marks).find((m) => m.kind === 'HELD');
    return mark ? [{ mark, configuration: named.find((c) => c.id === s.configurationId)! }] : [];
  });
  return (
    <>
      {held.map((h) => (
        <Held key={h.configuration.id} mark={h.mark} configuration={h.configuration} metricId={data.metric.id} />
      ))}
    </>
  );
}

function Held({
  mark,
  configuration: c,
  metricId,
}: {
  mark: Schemas['ReadingMark'];
  configuration: Schemas['ConfigurationRow'];
  metricId: number;
}) {
  const queries = useQueryClient();
  const [reason, setReason] = useState('');
  const params = { path: { configurationId: c.id, metricId } };
  const decide = useMutation({
    mutationFn: (counts: boolean) =>
      value(
        counts
          ? api.PUT('/api/configurations/{configurationId}/metrics/{metricId}/held-counts', {
              params,
              body: { reason },
            })
          : api.DELETE('/api/configurations/{configurationId}/metrics/{metricId}/held-counts', { params }),
      ),
    onSettled: () => {
      void changed(queries, 'scores');
    },
  });
  return (
    <div className="mt-2 border-l-2 border-gold pl-3">
      <p>
        {c.model}, {c.name}: {markReason({ kind: 'HELD', rate: mark.rate })}
      </p>
      {mark.words !== undefined ? (
        <p>
          {mark.words}.{' '}
          <button data-changes className="link" disabled={decide.isPending} onClick={() => decide.mutate(false)}>
            Undo
          </button>
        </p>
      ) : (
        <form
          data-changes
          className="mt-1 flex max-w-xl items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            decide.mutate(true);
          }}
        >
          <label className="flex-1">
            <span className="small">It counts all the same, because</span>
            <input
              className="field"
              value={reason}
              maxLength={400}
              required
              onChange={(event) => setReason(event.target.value)}
            />
          </label>
          <button className="button" disabled={decide.isPending || reason.trim() === ''}>
            Let it count
          </button>
        </form>
      )}
      <Failed of={decide} />
    </div>
  );
}
