import { kernelOf } from './kernel/kernels.ts';
import type { Workload } from './types.ts';

/** Every test that runs in a browser, loaded when its turn comes. The keys are those of suites.json. */
const LOADERS: Record<string, () => Promise<{ workload: Workload }>> = {
  'species-list': () => import('./species-list/index.ts'),
  'transect-sketch': () => import('./transect-sketch/index.ts'),
};

/** Whether a test runs in one worker, so that a page that stands still was held up by something else. */
export function leavesPageIdle(key: string): boolean {
  const kernel = kernelOf(key);
  return kernel ? !kernel.all : /^(memory|storage)-|^desk-(?!courier)/.test(key);
}

/** Whether the runner carries a test out, and no page can. */
export function isNative(key: string): boolean {
  return key.startsWith('native-');
}

/** Nothing where this page is older than the test. */
export async function loadWorkload(key: string): Promise<Workload | null> {
  if (key.startsWith('endurance-')) {
    const inner = await loadWorkload(key.slice('endurance-'.length));
    return inner && { ...inner, key, run: (options) => inner.run({ ...options, endure: true }) };
  }
  const kernel = kernelOf(key);
  if (kernel?.all) return (await import('./kernel/all.ts')).allThreads(key, kernel.name);
  if (kernel) return (await import('./kernel/one.ts')).oneThread(key, kernel.name);
  if (key.startsWith('memory-')) return (await import('./memory/index.ts')).memoryWorkload(key);
  if (key.startsWith('graphics-')) return (await import('./graphics/index.ts')).graphicsWorkload(key);
  if (key.startsWith('gpu-')) return (await import('./gpu/index.ts')).gpuWorkload(key);
  if (key.startsWith('video-')) return (await import('./video/index.ts')).videoWorkload(key);
  if (key.startsWith('storage-')) return (await import('./storage/index.ts')).storageWorkload(key);
  if (key.startsWith('page-')) return (await import('./page/index.ts')).pageWorkload(key);
  if (key.startsWith('desk-')) return (await import('./desk/index.ts')).deskWorkload(key);
  if (key.startsWith('network-')) return (await import('./network/index.ts')).networkWorkload(key);
  if (key.startsWith('battery-')) return (await import('./battery/index.ts')).batteryWorkload(key);
  const load = Object.hasOwn(LOADERS, key) ? LOADERS[key] : undefined;
  return load ? (await load()).workload : null;
}
