import { Link } from '@tanstack/react-router';
import { useTitle } from './title.ts';
import { Empty } from '../ui/states.tsx';

export function NotHere() {
  useTitle('Not here');
  return (
    <>
      <h1 className="sr-only">Not here</h1>
      <Empty title="There is nothing at this address">
        It may have been mistyped. Go on to the{' '}
        <Link to="/standings" className="link">
          standings
        </Link>
        , or press <kbd>/</kbd> to search.
      </Empty>
    </>
  );
}
