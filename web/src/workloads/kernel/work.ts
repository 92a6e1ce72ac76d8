import { WrongAnswer } from '../types.ts';
import type { Kernel, KernelFacts } from './kernels.ts';

/** Prepares a workload; what comes back does so many rounds and checks the answer of each. */
export function work(kernel: Kernel, facts: KernelFacts): (rounds: number) => void {
  kernel.prepare(facts.seed);
  return (rounds) => {
    for (let i = 0; i < rounds; i++) {
      if (kernel.operate() >>> 0 !== facts.answer) throw new WrongAnswer('The answer of a round is not the known one.');
    }
  };
}

/** Looks at everything the last round left, where a workload has more than its answer. */
export function checkLast(kernel: Kernel, facts: KernelFacts): void {
  if (facts.last && kernel.digest!(facts.last.of) >>> 0 !== facts.last.answer) throw new WrongAnswer('What the last round left is not what is known.');
}
