import { useMutation, useQuery } from '@tanstack/react-query';
import { zipSync, strToU8 } from 'fflate';
import { useState } from 'react';
import { ExportMenu } from '../export/ExportMenu.tsx';
import { HEIGHT, WIDTH } from '../export/page.ts';
import { fontAddress } from '../export/font.ts';
import { drawn as painted, save } from '../export/save-file.ts';
import { table } from '../export/csv.ts';
import { count } from '../format/format.ts';
import { Ready } from '../ui/states.tsx';
import { chartHeading, chartsOf, MOST_BARS, type Chart } from '../writeup/figure/charts.ts';
import { Drawing } from '../writeup/figure/Drawing.tsx';
import { figurePage } from '../writeup/figure/figure-page.ts';
import { chartsOfStanding } from '../writeup/figure/answers.ts';
import type { Ask } from './question/ask.ts';

/** A chart for each test, over whoever is ranked: values in their units, best first. */
export function ChartsPart({
  ask,
  highlight,
  onLeaveOut,
}: {
  ask: Ask;
  highlight: number | undefined;
  onLeaveOut: (key: string) => void;
}) {
  const [all, setAll] = useState(false);
  const { per: _, ...asMeasured } = ask;
  const values = useQuery(chartsOfStanding(asMeasured));
  return (
    <div className="min-h-0 flex-1 overflow-y-auto print:overflow-visible">
      <Ready query={values} what="the charts">
        {(data) => {
          const charts = chartsOf(data, highlight, all ? Infinity : MOST_BARS);
          if (charts.length === 0)
            return (
              <p className="py-3 text-ink-2">
                No test here has the values of several. Ask for other tests, or for every test.
              </p>
            );
          return (
            <>
              <p className="flex flex-wrap items-baseline gap-x-4 pb-1">
                <span className="small">
                  {count(charts.length)} {charts.length === 1 ? 'test' : 'tests'} of {count(data.rows.length)}{' '}
                  {data.rows.length === 1 ? 'configuration' : 'configurations'}
                  {ask.per !== undefined && '; values as they were measured'}
                </span>
                {data.rows.length > MOST_BARS && (
                  <button className="link small" aria-pressed={all} onClick={() => setAll(!all)}>
                    {all ? `the first ${MOST_BARS} of each` : 'show all bars'}
                  </button>
                )}
                <AllPictures charts={charts} />
              </p>
              <div className="grid gap-x-12 gap-y-6 xl:grid-cols-2">
                {charts.map((chart) => (
                  <OneChart key={chart.metric.id} chart={chart} onLeaveOut={onLeaveOut} />
                ))}
              </div>
            </>
          );
        }}
      </Ready>
    </div>
  );
}

function OneChart({ chart: { metric, drawn }, onLeaveOut }: { chart: Chart; onLeaveOut: (key: string) => void }) {
  const [name, how] = chartHeading(metric);
  return (
    <section className="max-w-[720px] min-w-0" aria-label={name}>
      <h2 className="flex flex-wrap items-baseline gap-x-3 text-[16px]">
        {name}
        <span className="small font-sans">{how}</span>
        <span className="ml-auto flex items-baseline gap-x-3 font-sans print:hidden">
          <button
            className="link small"
            aria-label={`Leave out ${name}`}
            onClick={() => onLeaveOut(`test:${metric.testId}`)}
          >
            leave out
          </button>
          <ExportMenu
            quiet
            name={name}
            csv={() => table([drawn.columns, ...drawn.rows])}
            draw={(paint, font) => figurePage(drawn, drawn.caption, paint, font)}
          />
        </span>
      </h2>
      <Drawing svg={drawn.svg} narrow={drawn.narrow} alt={drawn.alt} />
    </section>
  );
}

/** Names of files in an archive, each once. */
function fileName(at: number, name: string): string {
  return `${String(at + 1).padStart(2, '0')}-${name
    .replace(/[^\w-]+/g, '-')
    .toLowerCase()
    .slice(0, 60)}`;
}

/** Every chart as a picture, with its numbers, in one archive. */
function AllPictures({ charts }: { charts: readonly Chart[] }) {
  const make = useMutation({
    mutationFn: async () => {
      const font = await fontAddress();
      const files: Record<string, Uint8Array> = {};
      for (const [i, { metric, drawn }] of charts.entries()) {
        const svg = figurePage(drawn, drawn.caption, 'light', font);
        const png = await painted(svg, WIDTH, HEIGHT);
        const name = fileName(i, metric.name);
        files[`${name}.png`] = new Uint8Array(await png.arrayBuffer());
        files[`${name}.csv`] = strToU8(table([drawn.columns, ...drawn.rows]));
      }
      // Pictures are packed already.
      save(
        new Blob([zipSync(files, { level: 0 }) as Uint8Array<ArrayBuffer>], { type: 'application/zip' }),
        'charts.zip',
      );
      return charts.length;
    },
  });
  return (
    <span className="ml-auto print:hidden">
      <button className="link small" disabled={make.isPending} onClick={() => make.mutate()}>
        {make.isPending ? 'drawing the pictures' : 'all as pictures'}
      </button>
      {make.isError && (
        <span role="alert" className="ml-2 text-plum">
          {make.error.message}
        </span>
      )}
    </span>
  );
}
