import { count } from '../../format/format.ts';
import { letter, unsaidUnits, type Answer, type Layout } from './columns.ts';

const MOST_SAID = 8;

/** What would be made of the sheet, what has to be decided first, and whether its own totals are right. */
export function ResultPart({ answer, onChange }: { answer: Answer; onChange: (layout: Layout) => void }) {
  const made = answer.outcome;
  const unsaid = unsaidUnits(answer);
  return (
    <div className="grid content-start gap-1">
      <h2>Result</h2>
      {answer.toSay.map((words) => (
        <p key={words} role="alert" className="border-l-2 border-gold pl-3">
          {words}
        </p>
      ))}
      {made && (
        <ul>
          <Line
            n={made.newModels.length}
            one="new model"
            several="new models"
            more={made.newModels.slice(0, MOST_SAID).join(', ')}
          />
          <Line n={made.newConfigurations} one="new configuration" several="new configurations" />
          <Line n={made.newSessions} one="session" several="sessions" />
          <Line n={made.newTests} one="new test" several="new tests" more={made.newSuites.join(', ')} />
          <Line n={made.readings} one="score" several="scores" />
          <Line n={made.withoutValue} one="state with its words" several="states with their words" />
          {made.there > 0 && <Line n={made.there} one="is in the ledger already" several="are in the ledger already" />}
        </ul>
      )}
      {made && made.refusedTotal > 0 && (
        <>
          <p className="text-plum">
            {made.refusedTotal === 1 ? '1 value' : `${count(made.refusedTotal)} values`} cannot be taken, so the sheet
            cannot be stored as it is:
          </p>
          <ul className="small">
            {made.refused.slice(0, MOST_SAID).map((r, i) => (
              <li key={i}>
                Row {r.line}, {r.column}, “{r.value}”: {r.reason}
              </li>
            ))}
          </ul>
        </>
      )}
      {(answer.names.length > 0 || answer.twice.length > 0 || unsaid.length > 0) && <h2 className="mt-3">Questions</h2>}
      {unsaid.length > 0 && (
        <p>
          {unsaid.slice(0, MOST_SAID).join(', ')}
          {unsaid.length > MOST_SAID && ` and ${unsaid.length - MOST_SAID} more`}: no unit stands there. Read as points,
          more is better; press what stands over the column if that is wrong.
        </p>
      )}
      {answer.names.map((q) => (
        <p key={q.name}>
          Is “{q.name}” the{' '}
          <b className="font-semibold">
            {q.maker} {q.model}
          </b>
          ?{' '}
          <button
            className="link"
            onClick={() =>
              onChange({ ...answer.layout, names: { ...answer.layout.names, [q.name]: `${q.maker}\t${q.model}` } })
            }
          >
            yes
          </button>{' '}
          ·{' '}
          <button
            className="link"
            onClick={() => onChange({ ...answer.layout, names: { ...answer.layout.names, [q.name]: '' } })}
          >
            no, another model
          </button>
        </p>
      ))}
      {answer.twice.map((q) => (
        <p key={q.name} className="text-ink-2">
          “{q.name}” is there {q.times} times with the same facts and the same day: {q.times} sessions of one
          configuration.
        </p>
      ))}
      {answer.checks.length > 0 && <h2 className="mt-3">Checked against the sheet</h2>}
      {answer.checks.map((c) => (
        <p key={c.column} className="text-ink-2">
          {c.agreeing === 0
            ? `“${c.heading}” is neither the mean nor the sum of its row's scores.`
            : `“${c.heading}” is the ${c.of} of the scores in ${c.agreeing} of ${c.agreeing + c.rows.length} rows${
                c.rows.length > 0 ? `; it differs in row ${c.rows.map((r) => r + 1).join(', ')}` : ''
              }.`}
        </p>
      ))}
      {answer.unread > 0 && (
        <>
          <h2 className="mt-3">Not read</h2>
          <ul className="text-ink-2">
            {answer.remarks
              .filter((r) => r.kind === 'UNREAD')
              .slice(0, MOST_SAID)
              .map((r) => (
                <li key={`${r.row},${r.column}`}>
                  {letter(r.column)}
                  {r.row + 1}: {r.words}
                </li>
              ))}
          </ul>
          {answer.unread > MOST_SAID && <p className="small">and {answer.unread - MOST_SAID} more</p>}
        </>
      )}
    </div>
  );
}

function Line({ n, one, several, more }: { n: number; one: string; several: string; more?: string | undefined }) {
  return n === 0 ? null : (
    <li>
      <b className="font-semibold">{count(n)}</b> {n === 1 ? one : several}
      {more && <span className="small"> {more}</span>}
    </li>
  );
}
