import { seeded } from '../random.ts';

/** What each storage test does, apart from how it is done. Sizes are in bytes. */

export const KIB = 1024;
export const MIB = 1024 * KIB;
/** Of the file that most tests work on. */
export const FILE_BYTES = 64 * MIB;
export const CHUNK = MIB;
export const BLOCK = 4 * KIB;
/** 512 bytes to 16 MiB. */
export const SWEEP: readonly number[] = Array.from({ length: 16 }, (_, i) => 512 * 2 ** i);
export const SMALL_FILES = 32;
export const SMALL_BYTES = 4 * KIB;
/** The directory of ours; whatever is in it when a test begins was left by one that was cut off. */
export const DIRECTORY = 'yarrowmark-storage-test';
export const DATABASE = 'yarrowmark-storage-test';
/** Of what the browser would let us store, what is taken without asking. */
export const SHARE_WITHOUT_ASKING = 0.1;

export type StorageTest = 'write' | 'read' | 'random-write' | 'random-read' | 'sweep-write' | 'sweep-read' | 'small-files' | 'transactions';
export const STORAGE_TESTS: readonly StorageTest[] = ['write', 'read', 'random-write', 'random-read', 'sweep-write', 'sweep-read', 'small-files', 'transactions'];

/** Bytes that a test needs at most. */
export function needs(test: StorageTest): number {
  return test === 'small-files' ? SMALL_FILES * SMALL_BYTES : test === 'transactions' ? MIB : FILE_BYTES;
}

export type Room = 'enough' | 'ask' | 'too-little';

/** Whether so many bytes may be taken, given what the browser says it would still store. */
export function room(bytes: number, free: number): Room {
  return bytes > free ? 'too-little' : bytes > free * SHARE_WITHOUT_ASKING ? 'ask' : 'enough';
}

/** What tells a page of a file from every other: so that no layer takes two for the same, while the rest is made only once. */
export function stamp(chunk: Uint8Array, place: number): void {
  const words = new DataView(chunk.buffer, chunk.byteOffset, chunk.length);
  for (let at = 0; at < chunk.length; at += BLOCK) words.setUint32(at, place + at);
}

/** Bytes that tell where they were written: the same for the same block of the same round. */
export function fillBlock(bytes: Uint8Array, block: number, salt: number): void {
  const words = new Uint32Array(bytes.buffer, bytes.byteOffset, bytes.length >> 2);
  const next = seeded(block * 2654435761 + salt);
  for (let i = 0; i < words.length; i++) words[i] = next() * 0x1_0000_0000;
}
