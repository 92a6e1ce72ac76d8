import { Link } from '@tanstack/react-router';

/** Where a plan that was just made can be taken. */
export function PlannedLinks({ plan, what }: { plan: number; what: 'it' | 'them' }) {
  return (
    <>
      <Link to="/bench" search={{ plan }} className="link">
        bring {what} to the bench
      </Link>
      , or{' '}
      <Link to="/plans" search={{ edit: plan }} className="link">
        change the plan
      </Link>
      .
    </>
  );
}
