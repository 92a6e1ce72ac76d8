/** What a compiled workload offers. */
export interface Kernel {
  prepare(seed: number): void;
  /** One round of the work; what it answers depends on all of it. */
  operate(): number;
  /** Looks at more than a round can afford to; called once after the run. */
  digest?(of: number): number;
}

/** A compiled workload, by the name of its folder, with what is known about it. */
export interface KernelFacts {
  seed: number;
  /** What every round answers, as the plain implementation in the tests finds it. */
  answer: number;
  /** How much of the test's unit one round is, for rates per second. */
  perRound: number;
  last?: { of: number; answer: number };
  simd?: boolean;
}

export const KERNELS: Record<string, KernelFacts> = {
  'weir-hash': { seed: 20260401, answer: 494_973_052, perRound: 1 },
  'map-tile-crush': { seed: 1847, answer: 50_589, perRound: (8 * 160 * 160) / 1e6, last: { of: 50_589, answer: 651_311_452 } },
  'specimen-sort': { seed: 733, answer: 1_859_991_625, perRound: 16_384 / 1e6 },
  'footpath-search': { seed: 4099, answer: 1_241_940_378, perRound: 1 },
  'fieldnote-match': { seed: 58, answer: 933_080_841, perRound: (8 * 32_768) / 1e6 },
  'plot-matrix': { seed: 612, answer: 3_148_807_746, perRound: (2 * 128 ** 3) / 1e9 },
  'tide-spectrum': { seed: 365, answer: 1_154_944_596, perRound: 2 },
  'roost-orbits': { seed: 96, answer: 3_989_160_669, perRound: (96 * 96 * 8) / 1e6 },
  'lantern-paths': { seed: 17, answer: 1_576_711_597, perRound: (48 * 32 * 4) / 1e6 },
  'plate-filter': { seed: 2048, answer: 3_748_816_868, perRound: (256 * 256) / 1e6 },
  'plot-matrix-simd': { seed: 612, answer: 3_148_807_746, perRound: (2 * 128 ** 3) / 1e9, simd: true },
  'roost-orbits-simd': { seed: 96, answer: 4_182_977_258, perRound: (96 * 96 * 8) / 1e6, simd: true },
  'plate-filter-simd': { seed: 2048, answer: 3_748_816_868, perRound: (256 * 256) / 1e6, simd: true },
};

/** Which workload a test runs, and how: its key is the workload's name with -one or -all. The first version of one has neither. */
export function kernelOf(key: string): { name: string; all: boolean } | null {
  const name = key.replace(/-(one|all)$/, '');
  return Object.hasOwn(KERNELS, name) ? { name, all: key.endsWith('-all') } : null;
}
