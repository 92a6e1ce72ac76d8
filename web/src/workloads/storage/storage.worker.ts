import { measure, type MeasureOptions } from '../measure.ts';
import { seeded } from '../random.ts';
import { ofCurve, sweep } from '../sweep.ts';
import { NoSpace, WrongAnswer, type Measurement } from '../types.ts';
import { serveMeasurement } from '../worker-run.ts';
import { BLOCK, CHUNK, DATABASE, DIRECTORY, FILE_BYTES, fillBlock, KIB, MIB, SMALL_BYTES, SMALL_FILES, stamp, SWEEP, type StorageTest } from './plan.ts';

const MB = 1e6;
const SEED = 4711;

/** Not in every library of types yet. */
interface SyncHandle {
  read(buffer: Uint8Array, options: { at: number }): number;
  write(buffer: Uint8Array, options: { at: number }): number;
  truncate(size: number): void;
  flush(): void;
  close(): void;
}
type FileHandle = FileSystemFileHandle & { createSyncAccessHandle(): Promise<SyncHandle> };

serveMeasurement<{ test: StorageTest }>(async ({ test }, options) => {
  const files = test !== 'transactions';
  await clean(files);
  try {
    if (!files) return await transactions(options);
    const root = await (await navigator.storage.getDirectory()).getDirectoryHandle(DIRECTORY, { create: true });
    if (test === 'small-files') return await smallFiles(root, options);
    const file = await ((await root.getFileHandle('field.dat', { create: true })) as FileHandle).createSyncAccessHandle();
    try {
      return await inFile(file, test, options);
    } finally {
      file.close();
    }
  } catch (error) {
    if (error instanceof DOMException && error.name === 'QuotaExceededError') throw new NoSpace('The browser gave no more space for this page.');
    throw error;
  } finally {
    await clean(files);
  }
});

/** Takes away what is ours, also what a run that was cut off has left. The database needs no files, and some browsers have none. */
async function clean(files: boolean): Promise<void> {
  if (files) await (await navigator.storage.getDirectory()).removeEntry(DIRECTORY, { recursive: true }).catch((error: unknown) => {
    if (!(error instanceof DOMException && error.name === 'NotFoundError')) throw error;
  });
  await new Promise<void>((resolve) => {
    const asked = indexedDB.deleteDatabase(DATABASE);
    asked.onsuccess = asked.onerror = asked.onblocked = () => resolve();
  });
}

function whole(done: number, wanted: number): void {
  if (done !== wanted) throw new NoSpace(`Only ${done} of ${wanted} bytes could be written: the space is used up.`);
}

function same(read: number, wanted: number): void {
  if (read !== wanted) throw new WrongAnswer(`Only ${read} of ${wanted} bytes could be read back.`);
}

/** Fills the file, so that reading reads what was written and writing writes over what is there. */
function lay(file: SyncHandle): void {
  const chunk = new Uint8Array(CHUNK);
  fillBlock(chunk, 0, SEED);
  for (let i = 0; i < FILE_BYTES / CHUNK; i++) {
    stamp(chunk, i * CHUNK);
    whole(file.write(chunk, { at: i * CHUNK }), CHUNK);
  }
  file.flush();
}

function checkChunk(found: Uint8Array, at: number): void {
  const wanted = new Uint8Array(found.length);
  fillBlock(wanted, 0, SEED);
  stamp(wanted, at * CHUNK);
  if (found.some((byte, i) => byte !== wanted[i])) throw new WrongAnswer('What was read is not what was written.');
}

async function inFile(file: SyncHandle, test: StorageTest, options: MeasureOptions): Promise<Measurement> {
  lay(file);
  const random = seeded(SEED);
  const chunk = new Uint8Array(CHUNK);
  const block = new Uint8Array(BLOCK);
  const blocks = FILE_BYTES / BLOCK;
  let next = 0;
  if (test === 'write') {
    // Through to the drive as far as the browser lets us: a flush belongs to every eight megabytes.
    const result = await measure((rounds) => {
      for (let i = 0; i < rounds; i++) {
        for (let part = 0; part < 8; part++, next = (next + 1) % (FILE_BYTES / CHUNK)) {
          fillFirst(chunk, next);
          whole(file.write(chunk, { at: next * CHUNK }), CHUNK);
        }
        file.flush();
      }
    }, (8 * CHUNK) / MB, options);
    return result;
  }
  if (test === 'read') {
    const result = await measure((rounds) => {
      for (let i = 0; i < rounds; i++, next = (next + 1) % (FILE_BYTES / CHUNK)) same(file.read(chunk, { at: next * CHUNK }), CHUNK);
    }, CHUNK / MB, options);
    file.read(chunk, { at: 5 * CHUNK });
    checkChunk(chunk, 5);
    return result;
  }
  if (test === 'random-write') {
    fillBlock(block, 1, SEED);
    let last = 0;
    const result = await measure((rounds) => {
      for (let i = 0; i < rounds; i++) {
        for (let part = 0; part < 16; part++) {
          last = Math.floor(random() * blocks);
          fillFirst(block, last);
          whole(file.write(block, { at: last * BLOCK }), BLOCK);
        }
        file.flush();
      }
    }, (16 * BLOCK) / MB, options);
    const back = new Uint8Array(BLOCK);
    same(file.read(back, { at: last * BLOCK }), BLOCK);
    if (back.some((byte, i) => byte !== block[i])) throw new WrongAnswer('The last block is not what was written.');
    return result;
  }
  if (test === 'random-read') {
    return measure((rounds) => {
      for (let i = 0; i < rounds * 16; i++) same(file.read(block, { at: Math.floor(random() * blocks) * BLOCK }), BLOCK);
    }, (16 * BLOCK) / MB, options);
  }
  const buffer = new Uint8Array(16 * MIB);
  fillBlock(buffer, 3, SEED);
  const { points, timedMs } = await sweep(SWEEP, (bytes) => {
    const view = buffer.subarray(0, bytes);
    const places = FILE_BYTES / bytes;
    return {
      x: bytes / KIB,
      perRound: bytes / MB,
      work: (rounds) => {
        for (let i = 0; i < rounds; i++, next = (next + 1) % places) {
          if (next >= places) next = 0;
          if (test === 'sweep-read') same(file.read(view, { at: next * bytes }), bytes);
          else whole(file.write(view, { at: next * bytes }), bytes);
        }
        if (test === 'sweep-write') file.flush();
      },
    };
  }, options);
  return ofCurve(points, timedMs, undefined);
}

/** A few bytes of each chunk differ from round to round, so that no layer finds it written already. */
let salt = 0;
function fillFirst(bytes: Uint8Array, place: number): void {
  salt = (salt + 1) >>> 0;
  new DataView(bytes.buffer, bytes.byteOffset).setUint32(0, salt ^ place);
}

/** Files made, written, closed and deleted a second. */
function smallFiles(root: FileSystemDirectoryHandle, options: MeasureOptions): Promise<Measurement> {
  const bytes = new Uint8Array(SMALL_BYTES);
  return measure(async (rounds) => {
    for (let i = 0; i < rounds; i++) {
      for (let n = 0; n < SMALL_FILES; n++) {
        const file = await ((await root.getFileHandle(`leaf-${n}`, { create: true })) as FileHandle).createSyncAccessHandle();
        fillFirst(bytes, n);
        whole(file.write(bytes, { at: 0 }), SMALL_BYTES);
        file.close();
      }
      for (let n = 0; n < SMALL_FILES; n++) await root.removeEntry(`leaf-${n}`);
    }
  }, SMALL_FILES, options);
}

/** Transactions a second in the browser's own database: each reads a record, changes it and adds one. */
async function transactions(options: MeasureOptions): Promise<Measurement> {
  const database = await new Promise<IDBDatabase>((resolve, reject) => {
    const opening = indexedDB.open(DATABASE, 1);
    opening.onupgradeneeded = () => {
      opening.result.createObjectStore('count');
      opening.result.createObjectStore('sighting', { keyPath: 'id' });
    };
    opening.onsuccess = () => resolve(opening.result);
    opening.onerror = () => reject(opening.error ?? new Error('the database could not be opened'));
  });
  let done = 0;
  const once = () =>
    new Promise<void>((resolve, reject) => {
      const change = database.transaction(['count', 'sighting'], 'readwrite', { durability: 'strict' });
      const counts = change.objectStore('count');
      const asked = counts.get('heron');
      asked.onsuccess = () => {
        const before = (asked.result as number | undefined) ?? 0;
        if (before !== done) reject(new WrongAnswer(`The database counted ${before} transactions, and there were ${done}.`));
        counts.put(before + 1, 'heron');
        // A hundred records in turn, so that the database does not grow for ever.
        change.objectStore('sighting').put({ id: before % 100, species: 'heron', place: `weir ${before % 17}`, count: before });
      };
      change.oncomplete = () => {
        done++;
        resolve();
      };
      change.onerror = change.onabort = () => reject(change.error ?? new Error('the transaction was given up'));
    });
  try {
    return await measure(async (rounds) => {
      for (let i = 0; i < rounds; i++) await once();
    }, 1, options);
  } finally {
    database.close();
  }
}
