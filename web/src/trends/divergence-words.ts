import type { Schemas } from '../api/client.ts';
import { times } from '../format/ratio.ts';

type Together = Schemas['Together'];

/** For each line but the first: where it parts from that, or that it does not. */
export function partingWords(data: Pick<Together, 'lines' | 'partings' | 'steps' | 'along'>): string[] {
  const first = shortName(data, 0);
  return data.partings.map((p) => {
    const name = shortName(data, p.line);
    const along = data.along.order === 'DATE' ? 'day' : 'step';
    if (p.common === 0) return `${name} has no ${along} in common with ${first}.`;
    if (p.common === 1) return `${name} has one ${along} only in common with ${first}: nothing to hold together yet.`;
    const since = data.steps[p.from!]!.label;
    if (!p.apart) {
      const last = p.last!;
      return `${name} goes with ${first} since ${since}, as far as can be told: ${times(last.ratio, 3)} (${times(last.low, 3)} to ${times(last.high, 3)}) at ${data.steps[last.step]!.label}.`;
    }
    const { step, ratio, low, high } = p.apart;
    const rest =
      p.last && p.last.step !== step
        ? `; ${times(p.last.ratio, 3)} at ${data.steps[p.last.step]!.label}${p.last.told ? '' : ', where they can no longer be told apart'}`
        : '';
    return `${name} parts from ${first} at ${data.steps[step]!.label}: since ${since} it has come to ${times(ratio, 3)} of it (${times(low, 3)} to ${times(high, 3)})${rest}.`;
  });
}

/** The unit alone where every line is of one model. */
function shortName(data: Pick<Together, 'lines'>, at: number): string {
  const line = data.lines[at]!;
  const same = data.lines.every((l) => l.modelId === line.modelId);
  const model = `${line.maker} ${line.model}`;
  return same ? (line.unit ?? `${model}, every unit`) : line.unit === undefined ? model : `${model}, ${line.unit}`;
}
