import { Link } from '@tanstack/react-router';
import type { Schemas } from '../api/client.ts';
import { moment } from '../format/format.ts';

type Doing = Schemas['Doing'];
type Change = Doing['changes'][number];

export const kindWords = (subject: string) => subject.replaceAll('_', ' ');

/** What the log says of one thing that somebody did: who, when, of what by its name, and what became of it. */
export function LogLine({ of }: { of: Doing }) {
  const told = of.changes.map(changeWords).filter((words) => words !== '');
  return (
    <li className="border-b border-hair-2 py-1.5">
      <span className="block">
        <What of={of} /> {deedWords(of.changes)}
        {told.length > 0 && `: ${told.join('; ')}`}
      </span>
      <span className="small">
        {of.person}, {moment(of.at)}
        {of.undoneBy && `, undone by ${of.undoneBy}`}
      </span>
    </li>
  );
}

function What({ of }: { of: Doing }) {
  const kind = kindWords(of.subject);
  if (of.name === undefined)
    return (
      <b className="font-semibold">
        {kind.slice(0, 1).toUpperCase() + kind.slice(1)}
        {of.subjectId > 0 && ` ${of.subjectId}`}
      </b>
    );
  return (
    <>
      {KINDS_SAID.has(of.subject) && `${kind.slice(0, 1).toUpperCase()}${kind.slice(1)} `}
      {of.place === undefined ? (
        <b className="font-semibold">{of.name}</b>
      ) : (
        <Link to={of.place} className="font-semibold hover:underline">
          {of.name}
        </Link>
      )}
    </>
  );
}

/** Whose name alone does not say what it is. */
const KINDS_SAID = new Set(['plan', 'purpose', 'suite', 'suite version', 'write-up', 'write-up kind']);

/** What was done in a word, where one field says it. */
function deedWords(changes: readonly Change[]): string {
  const fields = new Set(changes.map((c) => c.field));
  if (fields.has('made')) return 'was added';
  if (fields.has('removed')) return 'was deleted';
  const role = changes.find((c) => c.field === 'joined')?.to;
  if (role !== undefined) return `joined as ${role.toLowerCase()}`;
  if (fields.has('set aside')) return changes.some((c) => c.to !== undefined) ? 'was set aside' : 'counts again';
  return 'was changed';
}

function changeWords({ field, from, to, reason }: Change): string {
  const told = field === 'made' || field === 'removed' || field === 'joined' || field === 'set aside';
  const what = told
    ? ''
    : from === undefined
      ? `${field}: ${to ?? ''}`
      : to === undefined
        ? `${field}: ${from} removed`
        : `${field}: ${from} → ${to}`;
  const why = reason ?? (field === 'set aside' ? to : undefined);
  return why ? (what ? `${what} (${why})` : why) : what;
}
