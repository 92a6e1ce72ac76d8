import { WrongAnswer } from '../types.ts';
import { serveRun } from '../worker-run.ts';
import { PIECES } from './pieces.ts';

serveRun<{ key: string }>(async ({ key }) => {
  const piece = PIECES[key]!;
  const once = piece.prepare();
  return {
    perRound: piece.perRound,
    async work(rounds) {
      for (let i = 0; i < rounds; i++) {
        const answer = await once();
        if (answer !== piece.answer) throw new WrongAnswer(`The answer of a round is ${answer} and should be ${piece.answer}.`);
      }
    },
  };
});
