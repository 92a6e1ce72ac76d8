import type { Schemas } from '../api/client.ts';
import { boundWords, verdictWords } from '../format/verdict.ts';

/** Every number of a comparison as a table: one line for each test and side. Full precision; a point in numbers, commas between. */
export function comparisonCsv(comparison: Schemas['Comparison']): string {
  const head = [
    'group',
    'suite',
    'suite version',
    'test',
    'metric',
    'unit',
    'direction',
    'base',
    'base configuration',
    'base value',
    'base runs',
    'base sessions',
    'model',
    'configuration',
    'value',
    'runs',
    'sessions',
    'ratio',
    'difference',
    '95 % low',
    '95 % high',
    'verdict',
    'in words',
    'the noise rests on',
    'runs a side that would tell',
    'sessions a side that would tell',
    'adds to the overall in %',
    'not in the overall because',
    'divided by',
    'materiality in %',
  ];
  const base = comparison.base;
  const lines = comparison.rows.flatMap((row) =>
    row.cells.map((cell, i) => {
      const c = comparison.sides[i]!.configuration;
      return [
        row.metric.group,
        row.metric.suite,
        row.metric.version,
        row.metric.test,
        row.metric.name,
        row.metric.unit,
        row.metric.direction === 'MORE_IS_BETTER' ? 'more is better' : 'less is better',
        `${base.maker} ${base.model}`,
        base.name,
        row.value,
        row.runs,
        row.sessions,
        `${c.maker} ${c.model}`,
        c.name,
        cell.value,
        cell.runs,
        cell.sessions,
        cell.ratio,
        cell.difference,
        cell.low,
        cell.high,
        boundWords(cell) ?? (cell.verdict ? verdictWords(cell.verdict) : cell.reading?.toLowerCase().replace('_', ' ')),
        cell.size,
        cell.unmeasured ? row.restsOn : undefined,
        cell.runsEach,
        cell.sessionsEach,
        cell.percent,
        cell.outReason,
        comparison.per?.label,
        comparison.materiality,
      ];
    }),
  );
  const overall = comparison.sides.map(({ configuration: c, overall: o, noOverall }) => [
    '',
    '',
    '',
    'Overall',
    comparison.purpose,
    '',
    '',
    `${base.maker} ${base.model}`,
    base.name,
    '',
    '',
    '',
    `${c.maker} ${c.model}`,
    c.name,
    '',
    '',
    '',
    o?.ratio,
    '',
    o?.low,
    o?.high,
    o ? verdictWords(o.verdict) : noOverall,
    o ? o.size : '',
    o ? `${o.days}${o.unmeasured > 0 ? `; a usual or stated spread in ${o.unmeasured} tests` : ''}` : '',
    '',
    '',
    o ? 100 * (o.ratio - 1) : '',
    '',
    comparison.per?.label,
    comparison.materiality,
  ]);
  const also = comparison.sides.flatMap(({ configuration: c, changed, conditions }) =>
    [
      ...changed.differing
        .filter((r) => r.role !== 'WITHIN_TOLERANCE')
        .map(
          (r) =>
            [
              r.label,
              `${r.cells[0]?.shown ?? 'not known'} → ${r.cells[1]?.shown ?? 'not known'}`,
              r.role === 'UNDER_TEST' ? 'the change under test' : 'also changed',
            ] as const,
        ),
      ...conditions.map(
        (d) =>
          [
            d.matter.toLowerCase(),
            d.base === '' ? d.other : `${d.base} → ${d.other}`,
            d.disturbs ? 'also changed' : '',
          ] as const,
      ),
    ].map(([what, how, role]) => [
      '',
      '',
      '',
      'What changed',
      what,
      '',
      '',
      `${base.maker} ${base.model}`,
      base.name,
      '',
      '',
      '',
      `${c.maker} ${c.model}`,
      c.name,
      how,
      '',
      '',
      '',
      '',
      '',
      '',
      role,
    ]),
  );
  const published = comparison.published.map((p) => {
    const model = [base, ...comparison.sides.map((s) => s.configuration)].find((c) => c.modelId === p.modelId);
    const metric = comparison.rows.find((r) => r.metric.id === p.metricId)?.metric;
    return [
      metric?.group,
      metric?.suite,
      metric?.version,
      metric?.test,
      metric?.name,
      metric?.unit,
      '',
      '',
      '',
      '',
      '',
      '',
      model && `${model.maker} ${model.model}`,
      p.source,
      p.value,
      p.results,
      '',
      '',
      '',
      '',
      '',
      'published by others, not compared',
    ];
  });
  return table([head, ...lines, ...overall, ...also, ...published]);
}

type Cell = string | number | null | undefined;

/** Lines of any cells, as RFC 4180 has them. */
export function table(lines: readonly (readonly Cell[])[]): string {
  return lines.map((cells) => cells.map(field).join(',')).join('\r\n') + '\r\n';
}

/** A text that begins like a formula would be computed by a spreadsheet, so it is held back by an apostrophe. */
function field(words: Cell): string {
  if (words === undefined || words === null) return '';
  if (typeof words === 'number') return String(words);
  const safe = /^[=+\-@\t\r]/.test(words) ? `'${words}` : words;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}
