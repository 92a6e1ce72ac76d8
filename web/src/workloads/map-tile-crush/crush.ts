import { WrongAnswer } from '../types.ts';

/** What the compiled workload offers. Offsets and lengths are in bytes of the packed tiles. */
export interface MapTileCrush {
  TILES: { value: number };
  /** Bytes of all tiles. */
  RAW_BYTES: { value: number };
  memory: WebAssembly.Memory;
  prepare(seed: number): void;
  pack(tile: number, offset: number): number;
  unpack(offset: number, packedLength: number): number;
  same(tile: number): number;
  digest(packedLength: number): number;
}

export const SEED = 1847;
/** Length and digest of the packed tiles, as found by the plain reader in the test beside this file. */
export const KNOWN_LENGTH = 50589;
export const KNOWN_DIGEST = 651311452;

/** Packs and unpacks every tile once, and checks each; answers the packed length of all. */
export function crushOnce(crush: MapTileCrush): number {
  const tileBytes = crush.RAW_BYTES.value / crush.TILES.value;
  let offset = 0;
  for (let tile = 0; tile < crush.TILES.value; tile++) {
    const length = crush.pack(tile, offset);
    if (crush.unpack(offset, length) !== tileBytes || !crush.same(tile)) {
      throw new WrongAnswer('A tile that was unpacked is not the one that was packed.');
    }
    offset += length;
  }
  return offset;
}

/** One round is all tiles. */
export function work(crush: MapTileCrush): (rounds: number) => void {
  crush.prepare(SEED);
  return (rounds) => {
    for (let i = 0; i < rounds; i++) {
      if (crushOnce(crush) !== KNOWN_LENGTH) throw new WrongAnswer('The packed tiles have another length than the known one.');
    }
  };
}

/** Looks at every packed byte of the last round; too slow to be part of each. */
export function checkLast(crush: MapTileCrush): void {
  if (crush.digest(KNOWN_LENGTH) >>> 0 !== KNOWN_DIGEST) throw new WrongAnswer('The packed tiles are not the known ones.');
}

/** Megabytes (10⁶ bytes) of tiles in one round. */
export function megabytes(crush: MapTileCrush): number {
  return crush.RAW_BYTES.value / 1e6;
}
