import type { Schemas } from '../api/client.ts';
import { direction, unitName } from '../format/format.ts';

type Measured = Pick<
  Schemas['MetricRow'],
  'kind' | 'choices' | 'xUnit' | 'unit' | 'direction' | 'capped' | 'main' | 'formula'
>;

/** What a metric is, in a few words. */
export function howMeasured(m: Measured): string {
  if (m.kind === 'CHECK') return 'passed or failed';
  if (m.kind === 'CHOICE') return m.choices.join(' < ');
  const what =
    m.kind === 'CURVE'
      ? `curve over ${m.xUnit ?? 'x'}, `
      : m.kind === 'FRAME_TIMES'
        ? 'frame times, '
        : m.formula !== undefined
          ? 'computed, '
          : '';
  return `${what}${unitName(m.unit)}, ${direction(m.direction)}${m.capped && m.kind !== 'FRAME_TIMES' ? ', a display may hold it' : ''}${!m.main && m.formula === undefined ? ', a part' : ''}`;
}
