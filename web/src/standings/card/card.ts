import type { Schemas } from '../../api/client.ts';
import { table } from '../../export/csv.ts';
import { couldBe, percent, reading, reason, runState, testGroup, type TestGroup } from '../../format/format.ts';
import { named } from '../../format/named.ts';
import { differenceWords, sizeWords, verdictWords } from '../../format/verdict.ts';

export type ReportCard = Schemas['ReportCard'];
export type CardRow = ReportCard['rows'][number];
export type CardPlace = NonNullable<ReportCard['place']>;

export const RATING_WORDS = { GOOD: 'good', AVERAGE: 'average', POOR: 'poor' } as const;

/** "1st", "2nd", "11th". */
export function ordinal(n: number): string {
  const last = n % 100 > 10 && n % 100 < 14 ? 0 : n % 10;
  return `${n}${['th', 'st', 'nd', 'rd'][last] ?? 'th'}`;
}

/** "5 of 14", and what it could be: "4 to 7". */
export function placeWords(place: CardPlace): [string, string] {
  return [`${place.order} of ${place.of}`, couldBe(place.best, place.worst) ?? ''];
}

/** "could be 4th to 7th, beats 64 %". */
export function placeDetail(place: CardPlace): string {
  return [
    place.best !== place.worst && `could be ${ordinal(place.best)} to ${ordinal(place.worst)}`,
    place.percentile !== undefined && `beats ${percent(place.percentile)} of the others`,
  ]
    .filter((s) => s !== false)
    .join(', ');
}

/** A test by its name; a further number of a test by both. */
export function testName(metric: Schemas['MetricRow']): string {
  return metric.main
    ? metric.test
    : metric.name.startsWith(metric.test)
      ? metric.name
      : `${metric.test}, ${metric.name}`;
}

/** The value, or how the run ended that gave none. */
export function valueWords(row: CardRow): string {
  if (row.value !== undefined) return `${row.atLeast ? 'at least ' : ''}${reading(row.value, row.metric)}`;
  if (!row.ended) return '–';
  const why = row.ended.words ?? (row.ended.reason ? reason(row.ended.reason) : '');
  return `${runState(row.ended.state)}${why ? `: ${why}` : ''}`;
}

/** Tests under their groups, in the catalogue's order. */
export function byGroup(rows: readonly CardRow[]): [string, CardRow[]][] {
  const groups = new Map<TestGroup, CardRow[]>();
  for (const row of rows) groups.set(row.metric.group, [...(groups.get(row.metric.group) ?? []), row]);
  return [...groups].map(([group, of]) => [testGroup(group), of]);
}

/** How a test compares with the forerunner, as Compare says it; nothing where it says nothing. */
export function againstWords(row: CardRow, comparison: Schemas['Comparison'] | undefined): string {
  const line = comparison?.rows.find((r) => r.metric.id === row.metric.id);
  const cell = line?.cells[0];
  if (!line || !cell) return '';
  if (cell.difference !== undefined) return differenceWords(cell, line.metric);
  if (cell.verdict === undefined) return '';
  const size = sizeWords(cell, line.metric, undefined) ?? '';
  if (cell.verdict === 'LEVEL' || cell.verdict === 'PROBABLY_LEVEL' || cell.verdict === 'CANNOT_TELL')
    return verdictWords(cell.verdict);
  return cell.verdict.startsWith('PROBABLY') ? `${size}, probably` : size;
}

/** Every number of a card as a table. */
export function cardCsv(card: ReportCard, comparison: Schemas['Comparison'] | undefined): string {
  const beside = comparison ? `against ${named(comparison.base)}` : undefined;
  return table([
    [
      'group',
      'suite',
      'suite version',
      'test',
      'unit',
      'direction',
      'value',
      'runs',
      'place',
      'place from',
      'place to',
      'of',
      'beats this share of the others',
      'rating',
      'good from',
      'poor from',
      ...(beside ? [`${beside}, ratio`, beside] : []),
    ],
    ...card.rows.map((r) => [
      testGroup(r.metric.group),
      r.metric.suite,
      r.metric.version,
      testName(r.metric),
      r.metric.unit === '1' ? '' : r.metric.unit,
      r.metric.direction === 'MORE_IS_BETTER' ? 'more is better' : 'less is better',
      r.value === undefined || r.metric.kind === 'CHECK' || r.metric.kind === 'CHOICE' ? valueWords(r) : r.value,
      r.runs === 0 ? '' : r.runs,
      r.place?.order,
      r.place?.best,
      r.place?.worst,
      r.place?.of,
      r.place?.percentile,
      r.rating && RATING_WORDS[r.rating],
      r.metric.goodLimit,
      r.metric.poorLimit,
      ...(beside
        ? [comparison?.rows.find((l) => l.metric.id === r.metric.id)?.cells[0]?.ratio, againstWords(r, comparison)]
        : []),
    ]),
  ]);
}
