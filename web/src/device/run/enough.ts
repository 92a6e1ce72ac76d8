/** A finished run as far as its number goes. */
export interface Value {
  value: number;
  resolution: number;
}

/** With so many runs it is enough, where their spread and their rounding are at most these; the server computed them. */
export interface Limit {
  runs: number;
  spread: number;
  rounding: number;
}

/** Whether the mean of these runs is known as well as the plan wants it. A value that is no rate says nothing. */
export function isEnough(limits: readonly Limit[], values: readonly Value[]): boolean {
  const limit = limits.find((l) => l.runs === values.length);
  if (!limit || values.some((v) => !(v.value > 0))) return false;
  const logs = values.map((v) => Math.log(v.value));
  const mean = logs.reduce((sum, x) => sum + x, 0) / logs.length;
  const squares = logs.reduce((sum, x) => sum + (x - mean) ** 2, 0);
  const rounding = values.reduce((sum, v) => sum + (v.resolution / v.value) ** 2, 0) / values.length / 12;
  const variance = Math.max(logs.length < 2 ? 0 : squares / (logs.length - 1), rounding);
  return Math.sqrt(variance) <= limit.spread && Math.sqrt(rounding) <= limit.rounding;
}
