import { LineNames } from './LineNames.tsx';
import { LABELS, LEFT, LinesPlot, NARROW } from './LinesPlot.tsx';
import { linesOf } from './trend-lines.ts';
import { places, type Trends } from './trends.ts';

/** Every test, or every group, as a ratio to the first that has it. */
export function TrendPlot({
  trends,
  width,
  toScale,
  folded,
  lit,
  onLit,
}: {
  trends: Trends;
  width: number;
  toScale: boolean;
  folded: boolean;
  lit: string | undefined;
  onLit: (id: string | undefined) => void;
}) {
  const lines = linesOf(trends, folded);
  const narrow = width < NARROW;
  return (
    <>
      <LinesPlot
        lines={lines}
        xs={places(trends.steps, LEFT, width - (narrow ? 0 : LABELS) - 12, toScale)}
        steps={trends.steps.map((s) => s.label)}
        width={width}
        label={`${lines.length} lines along ${trends.along.label}, each as a ratio to the first that has it; better is up. The table has the numbers.`}
        lit={lit}
        onLit={onLit}
      />
      {narrow && <LineNames lines={lines} lit={lit} onLit={onLit} />}
    </>
  );
}
