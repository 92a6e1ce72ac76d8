import { ofCurve, sweep } from '../sweep.ts';
import { loadWasm } from '../wasm.ts';
import { serveMeasurement } from '../worker-run.ts';
import { placeOf, SIZES, type Flow, type MemoryFlow } from './flow.ts';

/** Time that tiers of compilation are given. */
const WARM_MS = 300;

serveMeasurement<{ flow: Flow; url: string }>(async ({ flow, url }, options) => {
  const memory = await loadWasm<MemoryFlow>(url);
  // The first calls of a compiled function are run by a browser's quick compiler, until its good one is done. What the
  // smallest sizes measure should not be that.
  const first = placeOf(memory, flow, SIZES[0]!);
  const warmUntil = options.now() + WARM_MS;
  while (first && options.now() < warmUntil) await first.work(200);
  const { points, timedMs, short } = await sweep(SIZES, (bytes) => placeOf(memory, flow, bytes), options);
  // A step's time is what is known as latency; the sweep has steps for a time.
  const curve = flow === 'latency' ? points.map(({ x, y }) => ({ x, y: 1 / y })) : points;
  const last = curve.at(-1);
  const far = last ? [{ metric: 'far', value: last.y, resolution: 0 }] : [];
  return ofCurve(curve, timedMs, far, short && last ? `This browser gave no more than ${last.x / 1024} MiB of memory.` : undefined);
});
