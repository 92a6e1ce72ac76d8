import { table } from '../export/csv.ts';
import { verdictWords } from '../format/verdict.ts';
import type { Trends } from './trends.ts';

/** Every number of a trend, a line for each result. */
export function trendCsv(trends: Trends): string {
  return table([
    [
      'test',
      'unit',
      trends.along.label,
      'configuration',
      'value',
      'capped by the display',
      'runs',
      'ratio to the first',
      '95 % low',
      '95 % high',
      'step verdict',
      'corrected p',
      'marked',
      'on a usual spread',
      'also changed',
      'noted',
    ],
    ...trends.lines.flatMap((l) =>
      l.points.map((p) => {
        const step = l.steps.find((s) => s.to === p.step);
        const at = trends.steps[p.step]!;
        return [
          l.metric.name,
          l.metric.unit,
          at.label,
          at.configurations.map((c) => c.name).join('; '),
          p.value,
          p.held ? 'yes' : '',
          p.runs,
          p.ratio,
          p.low,
          p.high,
          step && verdictWords(step.verdict),
          step?.p,
          step ? (step.marked ? 'yes' : 'no') : '',
          step?.unmeasured ? 'yes' : '',
          at.changed.map((c) => c.label).join('; '),
          at.events.map((e) => e.words).join('; '),
        ];
      }),
    ),
    ...(trends.overall?.points.map((p) => {
      const step = trends.overall!.steps.find((s) => s.to === p.step);
      const at = trends.steps[p.step]!;
      return [
        'Overall',
        '',
        at.label,
        '',
        '',
        '',
        '',
        p.ratio,
        p.low,
        p.high,
        step && verdictWords(step.verdict),
        step?.p,
        step ? (step.marked ? 'yes' : 'no') : '',
        '',
        '',
      ];
    }) ?? []),
    ...trends.sides.flatMap((s) =>
      s.points.map((p) => [
        s.metric.name,
        s.metric.unit,
        trends.steps[p.step]!.label,
        trends.steps[p.step]!.configurations.map((c) => c.name).join('; '),
        p.value,
        '',
        p.runs,
        ...Array.from({ length: 9 }, () => ''),
      ]),
    ),
  ]);
}
