import { WrongAnswer } from '../types.ts';
import type { Place } from '../sweep.ts';

/** What the compiled workload offers. Sizes are in bytes. */
export interface MemoryFlow {
  reach(bytes: number): number;
  fill(bytes: number): void;
  read(bytes: number): number;
  write(bytes: number, value: number): void;
  copy(bytes: number): void;
  scaledAdd(bytes: number, factor: number): void;
  peek(index: number): number;
  weave(bytes: number, seed: number): void;
  walk(steps: number, from: number): number;
}

const KIB = 1024;
/** 16 KiB to 256 MiB. */
export const SIZES: readonly number[] = Array.from({ length: 15 }, (_, i) => 16 * KIB * 2 ** i);
export const STEPS = 4096;
const SEED = 271;

export type Flow = 'read' | 'write' | 'copy' | 'scaled-add' | 'latency';
export const FLOWS: readonly Flow[] = ['read', 'write', 'copy', 'scaled-add', 'latency'];

/** What a block is filled with: 0 to 1020, over and over. */
const PERIOD = 1021;

function sumOf(bytes: number): number {
  const numbers = bytes / 8;
  const rest = numbers % PERIOD;
  return (((numbers - rest) / PERIOD) * PERIOD * (PERIOD - 1) + rest * (rest - 1)) / 2;
}

function expectSame(found: number, wanted: number, what: string): void {
  if (found !== wanted) throw new WrongAnswer(`${what} is ${found} and should be ${wanted}.`);
}

/** The work at one size; null where so much memory cannot be had. Rates are in GB/s, for latency in steps per nanosecond. */
export function placeOf(memory: MemoryFlow, flow: Flow, bytes: number): Place | null {
  if (!memory.reach(bytes)) return null;
  /** Where the second half begins, in numbers. */
  const middle = bytes / 16;
  if (flow === 'latency') {
    memory.weave(bytes, SEED);
    let at = 0;
    return {
      x: bytes / KIB,
      perRound: STEPS / 1e9,
      work: (rounds) => {
        at = memory.walk(STEPS * rounds, at);
        if (at < 0 || at >= bytes || at % 64 !== 0) throw new WrongAnswer('The walk left its ring.');
      },
    };
  }
  memory.fill(bytes);
  const work: Record<Exclude<Flow, 'latency'>, () => void> = {
    read: () => expectSame(memory.read(bytes), sumOf(bytes), 'The sum'),
    write: () => {
      memory.write(bytes, 7.5);
      expectSame(memory.peek(middle), 7.5, 'What was written');
    },
    copy: () => {
      memory.copy(bytes);
      expectSame(memory.peek(middle + 5), 5, 'What was copied');
    },
    'scaled-add': () => {
      memory.scaledAdd(bytes, 0.5);
      expectSame(memory.peek((3 * bytes) / 32 + 6), 6 + 0.5 * ((bytes / 32 + 6) % PERIOD), 'What was added');
    },
  };
  const once = work[flow];
  // A copy moves each byte of its half twice, in and out; a scaled add touches three quarters.
  const touched = flow === 'scaled-add' ? (bytes * 3) / 4 : bytes;
  return {
    x: bytes / KIB,
    perRound: touched / 1e9,
    work: (rounds) => {
      for (let i = 0; i < rounds; i++) once();
    },
  };
}
