import url from '../generated/map-tile-crush.wasm?url';
import { loadWasm } from '../wasm.ts';
import { serveRun } from '../worker-run.ts';
import { checkLast, megabytes, work, type MapTileCrush } from './crush.ts';

serveRun(async () => {
  const crush = await loadWasm<MapTileCrush>(url);
  return { work: work(crush), perRound: megabytes(crush), after: () => checkLast(crush) };
});
