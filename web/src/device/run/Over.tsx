import { reading } from '../../format/format.ts';
import { placeWords, scoreSpread } from '../../bench/round-words.ts';
import type { RoundAnswer } from '../seat/api.ts';
import type { Showing } from './run-session.ts';

/** The end of a round, for whoever holds the device: what it scored, where it stands, and that it may be put away. */
export function Over({
  how,
  showing,
  results,
  onAgain,
}: {
  how: 'DONE' | 'STOPPED';
  showing: Showing | null;
  results: RoundAnswer | null;
  onAgain: () => void;
}) {
  const whole = how === 'DONE' && !(showing && (showing.late > 0 || showing.refused > 0));
  return (
    <section className="py-6" aria-live="polite">
      <h1>{how === 'DONE' ? 'Finished' : 'Stopped'}</h1>
      <p className="mt-2 text-[16px] text-ink-2">
        {ending(how, showing)} {whole && 'This device may be put away. '}It can be used again with a new code.
      </p>
      {results?.place && <p className="mt-3 text-[16px]">{placeWords(results.place)}</p>}
      {results && results.scores.length > 0 && (
        <table className="data mt-4 w-full" aria-label="Its scores">
          <thead>
            <tr>
              <th>Test</th>
              <th className="text-right">Score</th>
              <th className="text-right">Runs</th>
            </tr>
          </thead>
          <tbody>
            {results.scores.map((s) => (
              <tr key={s.testId}>
                <td>{s.test}</td>
                <td className="text-right whitespace-nowrap">
                  <b className="font-semibold">{reading(s.value, s, s.resolution)}</b>{' '}
                  <span className="small">{scoreSpread(s)}</span>
                </td>
                <td className="text-right">{s.runs}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <button className="button mt-6" onClick={onAgain}>
        Join again with a new code
      </button>
    </section>
  );
}

/** Says that everything is in the ledger only where the ledger said so of each run. */
function ending(how: 'DONE' | 'STOPPED', showing: Showing | null): string {
  if (showing && showing.late > 0)
    return `The session was ended at the bench meanwhile. ${showing.late} finished ${showing.late === 1 ? 'run is' : 'runs are'} kept there, and the reviewer can take ${showing.late === 1 ? 'it' : 'them'} in.`;
  if (showing && showing.refused > 0) return 'Not every result is in the ledger.';
  return how === 'DONE' ? 'Every result is in the ledger.' : 'What was finished before is in the ledger.';
}
