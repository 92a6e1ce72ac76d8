import { testGroup } from '../format/format.ts';
import { clearSteps, type PlotLine } from './LinesPlot.tsx';
import type { Trends } from './trends.ts';

/** What a plot draws of a trend: every test, or each group folded into its own overall; and the whole. */
export function linesOf(trends: Trends, folded: boolean): PlotLine[] {
  const parts: PlotLine[] =
    folded && trends.groups.length > 1
      ? trends.groups.map((g) => ({
          id: g.group,
          name: `${testGroup(g.group)}, ${g.tests} ${g.tests === 1 ? 'test' : 'tests'}`,
          points: g.overall.points,
          marks: clearSteps(g.overall.steps),
        }))
      : trends.lines.map((l) => ({
          id: String(l.metric.id),
          name: l.metric.name,
          points: l.points,
          marks: clearSteps(l.steps),
        }));
  if (!trends.overall) return parts;
  return [
    ...parts,
    {
      id: 'overall',
      name: 'Overall',
      points: trends.overall.points,
      marks: clearSteps(trends.overall.steps),
      whole: true,
    },
  ];
}
