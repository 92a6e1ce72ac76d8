import { Link } from '@tanstack/react-router';
import { PublishedSign } from '../chart/PublishedSign.tsx';
import { count, day, index, reading } from '../format/format.ts';
import type { Standings } from './question/ask.ts';

/** What others published for the metric that is ranked: beside the ranking, without a place. */
export function PublishedPart({
  published,
  metric,
}: {
  published: Standings['published'];
  metric: NonNullable<Standings['metric']>;
}) {
  return (
    <section
      aria-label="Published elsewhere"
      className="mt-2 max-h-40 shrink-0 overflow-y-auto border-t border-hair pt-1"
    >
      <h3>Published elsewhere, not ranked</h3>
      <ul>
        {published.map((p, i) => (
          <li key={i} className="flex flex-wrap items-baseline gap-x-3 border-b border-hair-2 py-1">
            <PublishedSign />
            <Link
              to="/shelf/models/$modelId"
              params={{ modelId: String(p.modelId) }}
              className="font-semibold hover:underline"
            >
              {p.maker} {p.model}
            </Link>
            <span>{reading(p.value, metric, p.resolution)}</span>
            {p.index !== undefined && <span className="small">{index(p.index)} against the base</span>}
            <span className="small ml-auto">
              {p.source}
              {p.publishedOn && `, ${day(p.publishedOn)}`}
              {p.results !== undefined && `, from ${count(p.results)} ${p.results === 1 ? 'result' : 'results'}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
