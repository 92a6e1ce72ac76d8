import type { Schemas } from '../../api/client.ts';
import { SeriesPlot } from '../../chart/SeriesPlot.tsx';
import { count, quantity } from '../../format/format.ts';
import { table } from '../../export/csv.ts';
import { ExportFigure } from '../../export/ExportFigure.tsx';
import { named } from '../../format/named.ts';

/** Frame times of each side with both lows: two different numbers, never held against each other. */
export function FramesPart({
  data,
  comparison,
}: {
  data: Schemas['ComparedMetric'];
  comparison: Schemas['Comparison'];
}) {
  const known = [comparison.base, ...comparison.sides.map((s) => s.configuration)];
  const all = data.sides.flatMap((s) =>
    s.frames ? [{ configuration: known.find((n) => n.id === s.configurationId)!, ...s.frames }] : [],
  );
  if (all.length === 0) return null;
  return (
    <div className="mt-3 flex flex-wrap gap-6">
      {all.map((f) => (
        <section key={f.readingId} className="w-[420px]">
          <h3>
            {f.configuration.model}, {f.configuration.name}
          </h3>
          <ExportFigure
            name={`Frame times of ${named(f.configuration)}`}
            caption={`${data.metric.test}: ${f.configuration.model}, ${f.configuration.name}, frame times in ms`}
            csv={() => table([['frame', 'ms'], ...f.times.map((ms, i) => [i + 1, ms])])}
          >
            <SeriesPlot
              points={f.times.map((y, i) => ({ x: i + 1, y }))}
              logarithmic={false}
              xUnit="frames"
              yUnit="ms"
              name={`Frame times of ${named(f.configuration)}`}
            />
          </ExportFigure>
          <p className="small">
            {quantity(f.numbers.meanRate, 'fps')} mean; 1 % low, mean {quantity(f.numbers.lowMean, 'fps')}; 1 % low,
            percentile {quantity(f.numbers.lowPercentile, 'fps')}; {count(f.numbers.stutters)} stutters.
          </p>
        </section>
      ))}
    </div>
  );
}
