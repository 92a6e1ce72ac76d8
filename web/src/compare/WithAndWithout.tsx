import { Link } from '@tanstack/react-router';
import { CONDITIONS, takeWords } from '../format/takes.ts';

/** One configuration alone on the table can be held against itself under another condition. */
export function WithAndWithout({ configuration }: { configuration: number }) {
  return (
    <p className="mt-6">
      Or hold the one on the table against itself:{' '}
      {CONDITIONS.map((c, i) => (
        <span key={c}>
          {i > 0 && ', '}
          <Link to="/compare" search={{ ids: [configuration], take: c, baseTake: 'USUAL' }} className="link">
            {takeWords(c)}
          </Link>
        </span>
      ))}
      , against its usual sessions.
    </p>
  );
}
