import { Link } from '@tanstack/react-router';
import { Empty } from '../ui/states.tsx';

export function NotHere() {
  return (
    <Empty title="There is nothing at this address">
      It may have been mistyped. Go on to the{' '}
      <Link to="/standings" className="link">
        standings
      </Link>
      , or press <kbd>/</kbd> to search.
    </Empty>
  );
}
