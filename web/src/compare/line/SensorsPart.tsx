import { useQueries, useQuery } from '@tanstack/react-query';
import { api, value, type Schemas } from '../../api/client.ts';
import { markColour } from '../../chart/Mark.tsx';
import { TracksPlot } from '../../chart/TracksPlot.tsx';
import { byKind, together } from '../../ledger/tracks.ts';
import { useTable } from '../../shell/table-store.ts';
import { isNative } from '../../workloads/registry.ts';
import { slotsOf } from './slots.ts';

type Reading = Schemas['ComparedMetric']['sides'][number]['readings'][number];

/** The run in the middle: the one that says best what they were like. */
export function middle<R extends Pick<Reading, 'value' | 'asideReason'>>(readings: readonly R[]): R | undefined {
  const counted = readings.filter((r) => r.asideReason === undefined).sort((a, b) => a.value - b.value);
  return counted[Math.floor((counted.length - 1) / 2)];
}

/** What sensors said during a run of each side, kind by kind on one time. Only the runner has sensors. */
export function SensorsPart({
  data,
  comparison,
}: {
  data: Schemas['ComparedMetric'];
  comparison: Schemas['Comparison'];
}) {
  const slots = slotsOf(
    useTable(),
    data.sides.map((s) => s.configurationId),
  );
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')) });
  const test = tests.data?.find((t) => t.id === data.metric.testId);
  const sides =
    test && isNative(test.key)
      ? data.sides.flatMap((s) => {
          const reading = middle(s.readings);
          return reading ? [{ id: s.configurationId, reading: reading.id }] : [];
        })
      : [];
  const pages = useQueries({
    queries: sides.map((s) => ({
      queryKey: ['reading', s.reading],
      queryFn: () => value(api.GET('/api/readings/{id}', { params: { path: { id: s.reading } } })),
    })),
  });
  const named = [comparison.base, ...comparison.sides.map((s) => s.configuration)];
  const all = sides.flatMap((s, i) =>
    byKind(pages[i]?.data?.tracks ?? []).map((k) => ({
      ...k,
      id: s.id,
      name: named.find((n) => n.id === s.id)?.model ?? '',
    })),
  );
  const kinds = [...new Map(all.map((k) => [`${k.kind} ${k.unit}`, k])).values()];
  if (kinds.length === 0) return null;
  return (
    <section className="mt-3 max-w-[980px]">
      <h3>Sensors during a run of each, the one in the middle</h3>
      <div className="grid gap-x-6 md:grid-cols-2">
        {kinds.map((k) => (
          <TracksPlot
            key={`${k.kind} ${k.unit}`}
            title={k.title}
            unit={k.unit}
            lines={all
              .filter((o) => o.kind === k.kind && o.unit === k.unit)
              .map((o) => ({ name: `${o.name} (${o.id})`, ...together(o), colour: markColour(slots(o.id)) }))}
          />
        ))}
      </div>
    </section>
  );
}
