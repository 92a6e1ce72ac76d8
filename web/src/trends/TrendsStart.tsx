import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { api, value, type Schemas } from '../api/client.ts';
import { SmallLine } from '../chart/SmallLine.tsx';
import { day } from '../format/format.ts';
import { howSure, tone, TONE_CLASS } from '../format/verdict.ts';
import { Empty, Ready } from '../ui/states.tsx';

type Telling = Schemas['TellingTrend'];

export const TELLING = {
  queryKey: ['trends', 'telling'],
  queryFn: () => value(api.GET('/api/trends/telling')),
  staleTime: 30_000,
};

/** Every device that was measured more than one way, the one that moved most first. */
export function TrendsStart() {
  const telling = useQuery(TELLING);
  return (
    <Ready query={telling} what="the trends">
      {(all) =>
        all.length === 0 ? (
          <Empty title="Nothing was measured more than one way yet">
            Copy a configuration, change one fact, and measure it: a new kernel, another power limit. Or measure the
            same one on another day.
          </Empty>
        ) : (
          <section className="max-w-[900px]">
            <h2 className="border-b border-hair pb-0.5">What moved most</h2>
            <p className="small">
              Each device along what it varies in most, over all tests, against its first step. Up is better.
            </p>
            <ul>
              {all.map((t) => (
                <li key={t.modelId}>
                  <TrendLine trend={t} />
                </li>
              ))}
            </ul>
          </section>
        )
      }
    </Ready>
  );
}

export function TrendLine({ trend: t }: { trend: Telling }) {
  const along =
    t.along.order === 'DATE' ? `${t.along.steps} days` : `${t.along.steps} steps of ${t.along.label.toLowerCase()}`;
  const told = t.firstToLast && `${t.firstToLast.size}, ${howSure(t.firstToLast.verdict)}`;
  return (
    <Link
      to="/trends"
      search={{ model: t.modelId }}
      className="group flex flex-wrap items-center gap-x-4 border-b border-hair-2 py-1.5 hover:bg-sheet"
    >
      <span className="w-52 max-sm:flex-1">
        <span className="block truncate font-semibold group-hover:underline" title={`${t.maker} ${t.model}`}>
          {t.maker} {t.model}
        </span>
        <span className="small">{along}</span>
      </span>
      <SmallLine
        points={t.points.map((p) => ({ x: p.step, ratio: p.ratio, low: p.low, high: p.high }))}
        label={`${t.maker} ${t.model} over ${along}: ${told ?? 'the last step shares no tests with the first'}`}
      />
      <span className="min-w-0 flex-1 max-sm:basis-full">
        {t.firstToLast ? (
          <>
            <span className={`font-semibold ${TONE_CLASS[tone(t.firstToLast.verdict)]}`}>{t.firstToLast.size}</span>
            {`, ${howSure(t.firstToLast.verdict)}`}
          </>
        ) : (
          <span className="text-ink-2">the last step shares no tests with the first</span>
        )}
        {t.step && (
          <span className="small block">
            a clear step from {stepName(t, t.step.from)} to {stepName(t, t.step.to)}: {t.step.size}
          </span>
        )}
      </span>
    </Link>
  );
}

const stepName = (t: Telling, label: string) => (t.along.order === 'DATE' ? day(label) : label);
