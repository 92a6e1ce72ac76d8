import { scaleLinear, scaleLog } from 'd3-scale';

/**
 * Round numbers for a logarithmic axis, at most so many: 1, 2 and 5 of each power of ten where there is room, else the
 * powers. With base 2, powers of two.
 */
export function logTicks(low: number, high: number, most: number, base: 2 | 10 = 10): number[] {
  if (!(low > 0) || !(high > low)) return low > 0 ? [low] : [];
  if (high / low < (base === 2 ? 4 : 10)) return linearTicks(low, high, most);
  const all = scaleLog().base(base).domain([low, high]).ticks(most);
  const lead = (t: number) => Number((t / 10 ** Math.floor(Math.log10(t) + 1e-9)).toPrecision(6));
  const choices =
    base === 10 ? [all, all.filter((t) => [1, 2, 5].includes(lead(t))), all.filter((t) => lead(t) === 1)] : [all];
  const fits = choices.find((c) => c.length <= most && c.length >= 2);
  return fits ?? everyNth(choices.at(-1)!.length >= 2 ? choices.at(-1)! : all, most);
}

/** Sizes of memory stand at powers of two. */
export function baseOf(unit: string): 2 | 10 {
  return ['B', 'By', 'KiB', 'MiB', 'GiB'].includes(unit) ? 2 : 10;
}

/** Round numbers for an axis to scale, at most so many. */
export function linearTicks(low: number, high: number, most: number): number[] {
  return everyNth(
    scaleLinear()
      .domain([low, high])
      .ticks(Math.max(2, most - 1)),
    most,
  );
}

function everyNth(ticks: readonly number[], most: number): number[] {
  const n = Math.ceil(ticks.length / Math.max(1, most));
  return ticks.filter((_, i) => i % n === 0);
}
