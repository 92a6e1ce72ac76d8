import { loadWasm } from '../wasm.ts';
import { serveRun } from '../worker-run.ts';
import { KERNELS, type Kernel } from './kernels.ts';
import { checkLast, work } from './work.ts';

serveRun<{ name: string; url: string }>(async ({ name, url }) => {
  const kernel = await loadWasm<Kernel>(url);
  const facts = KERNELS[name]!;
  return { work: work(kernel, facts), perRound: facts.perRound, after: () => checkLast(kernel, facts) };
});
