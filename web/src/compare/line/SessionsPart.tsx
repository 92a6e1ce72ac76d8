import { Link } from '@tanstack/react-router';
import type { Schemas } from '../../api/client.ts';
import { day, reading } from '../../format/format.ts';

/** A line by the sessions behind it: how the days differ, and under which conditions each was. */
export function SessionsPart({
  data,
  comparison,
}: {
  data: Schemas['ComparedMetric'];
  comparison: Schemas['Comparison'];
}) {
  const sides = data.sides.map((s) => ({
    configuration:
      s.configurationId === comparison.base.id
        ? comparison.base
        : comparison.sides.find((o) => o.configuration.id === s.configurationId)!.configuration,
    sessions: s.sessions,
  }));
  if (sides.every((s) => s.sessions.length < 2)) return null;
  return (
    <table className="data mt-2 w-full max-w-[980px]">
      <caption className="small pb-1 text-left">
        Its sessions: runs of one session are not independent of each other.
      </caption>
      <thead>
        <tr>
          <th>Configuration</th>
          <th>Session</th>
          <th className="text-right">Runs</th>
          <th className="text-right">Mean</th>
          <th>Conditions</th>
        </tr>
      </thead>
      <tbody>
        {sides.flatMap(({ configuration: c, sessions }) =>
          sessions.map((s) => (
            <tr key={`${c.id}-${s.sessionId}`}>
              <td>
                {c.model}, {c.name}
              </td>
              <td>
                <Link to="/ledger" search={{ session: s.sessionId }} className="link">
                  {day(s.at)}
                </Link>
              </td>
              <td className="text-right">{s.runs}</td>
              <td className="text-right">{reading(s.mean, data.metric)}</td>
              <td>{s.conditions.join(', ') || '–'}</td>
            </tr>
          )),
        )}
      </tbody>
    </table>
  );
}
