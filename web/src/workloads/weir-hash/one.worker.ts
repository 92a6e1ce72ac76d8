import url from '../generated/weir-hash.wasm?url';
import { loadWasm } from '../wasm.ts';
import { serveRun } from '../worker-run.ts';
import { work, type WeirHash } from './hash.ts';

serveRun(async () => ({ work: work(await loadWasm<WeirHash>(url)), perRound: 1 }));
