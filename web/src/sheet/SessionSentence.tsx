import { Link } from '@tanstack/react-router';
import { moment } from '../format/format.ts';
import type { Sheet } from './places.ts';

/** What is measured in a session, since when, and under which conditions. */
export function SessionSentence({ session }: { session: Sheet['session'] }) {
  return (
    <>
      <Link
        to="/shelf/configurations/$configurationId"
        params={{ configurationId: String(session.configuration.id) }}
        className="choice"
      >
        {session.configuration.maker} {session.configuration.model}, {session.configuration.name}
      </Link>
      , since {moment(session.startedAt)}
      {session.onMains !== undefined && (session.onMains ? ', plugged in' : ', on battery')}
      {session.roomTemperature !== undefined && `, ${session.roomTemperature} °C`}
      {session.recording && ', while the screen is recorded'}
      {session.otherWork && ', with other work going on'}.
    </>
  );
}
