import { WrongAnswer } from '../types.ts';

/** What the compiled workload offers. */
export interface MapTileCrush {
  RAW_BYTES: { value: number };
  memory: WebAssembly.Memory;
  prepare(seed: number): void;
  pack(): number;
  unpack(packedLength: number): number;
  same(): number;
  digest(packedLength: number): number;
}

export const SEED = 1847;
/** Length and digest of the packed tiles, as computed by the plain implementation in the test beside this file. */
export const KNOWN_LENGTH = 200_763;
export const KNOWN_DIGEST = 3992296931;

/** One round packs and unpacks all tiles. */
export function work(crush: MapTileCrush): (rounds: number) => void {
  crush.prepare(SEED);
  return (rounds) => {
    for (let i = 0; i < rounds; i++) {
      const length = crush.pack();
      const unpacked = crush.unpack(length);
      if (length !== KNOWN_LENGTH || unpacked !== crush.RAW_BYTES.value) throw new WrongAnswer('The packed tiles have another length than the known one.');
    }
  };
}

/** Looks at the whole last result; too slow to be part of each round. */
export function checkLast(crush: MapTileCrush): void {
  if (!crush.same()) throw new WrongAnswer('The unpacked tiles are not the ones that were packed.');
  if (crush.digest(KNOWN_LENGTH) >>> 0 !== KNOWN_DIGEST) throw new WrongAnswer('The packed tiles are not the known ones.');
}

/** Megabytes (10⁶ bytes) of tiles in one round. */
export function megabytes(crush: MapTileCrush): number {
  return crush.RAW_BYTES.value / 1e6;
}
