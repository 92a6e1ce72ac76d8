import { WrongAnswer } from '../types.ts';
import { serveRun } from '../worker-run.ts';
import { KNOWN_GRID, TOLERANCE } from './known.ts';
import { brightness, draw, farthest, HEIGHT, makeSymbol, WIDTH } from './sketch.ts';

const SEED = 91;

serveRun(async () => {
  const canvas = new OffscreenCanvas(WIDTH, HEIGHT);
  const context = canvas.getContext('2d')!;
  const symbol = makeSymbol();
  // A canvas that is read back often may be moved from the graphics processor to memory by the browser, in the middle
  // of the run. Reading a copy of one pixel through a canvas that is in memory anyway waits just as well.
  const probe = new OffscreenCanvas(1, 1).getContext('2d', { willReadFrequently: true })!;
  const grid = () => brightness(context.getImageData(0, 0, WIDTH, HEIGHT).data, WIDTH, HEIGHT);
  return {
    perRound: 1,
    work(rounds) {
      for (let i = 0; i < rounds; i++) draw(context, symbol, SEED, true);
      // Waits until everything is really drawn, not merely asked for.
      probe.drawImage(canvas, 0, 0, 1, 1, 0, 0, 1, 1);
      probe.getImageData(0, 0, 1, 1);
    },
    after() {
      const labelled = grid();
      draw(context, symbol, SEED, false);
      const plain = grid();
      const off = farthest(plain, KNOWN_GRID);
      if (off > TOLERANCE) throw new WrongAnswer(`The drawing is off by ${off.toFixed(1)} of 255; at most ${TOLERANCE} is smoothing.`);
      if (farthest(labelled, plain) < 0.5) throw new WrongAnswer('The labels were not drawn.');
    },
  };
});
