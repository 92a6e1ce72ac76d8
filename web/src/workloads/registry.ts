import type { Workload } from './types.ts';

/** Every test that runs in a browser, loaded when its turn comes. The keys are those of the server's built-in suite. */
const LOADERS: Record<string, () => Promise<{ workload: Workload }>> = {
  'weir-hash-one': () => import('./weir-hash/one.ts'),
  'weir-hash-all': () => import('./weir-hash/all.ts'),
  'map-tile-crush': () => import('./map-tile-crush/index.ts'),
  'species-list': () => import('./species-list/index.ts'),
  'transect-sketch': () => import('./transect-sketch/index.ts'),
};

/** Nothing where this page is older than the test. */
export async function loadWorkload(key: string): Promise<Workload | null> {
  const load = Object.hasOwn(LOADERS, key) ? LOADERS[key] : undefined;
  return load ? (await load()).workload : null;
}
