import { WrongAnswer } from '../types.ts';

/** What the compiled workload offers. */
export interface WeirHash {
  prepare(seed: number): void;
  operate(): number;
}

export const SEED = 20260401;
/** The hash of the prepared block, as computed by the plain implementation in the test beside this file. */
export const KNOWN_ANSWER = 494_973_052;

export function work(hash: WeirHash): (rounds: number) => void {
  hash.prepare(SEED);
  return (rounds) => {
    for (let i = 0; i < rounds; i++) {
      if (hash.operate() >>> 0 !== KNOWN_ANSWER) throw new WrongAnswer('The hash is not the known one.');
    }
  };
}
