import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import { useAccess } from '../access/AccessGate.tsx';
import { api, value, type Schemas } from '../api/client.ts';
import { moment } from '../format/format.ts';
import { Opening } from '../shell/Opening.tsx';
import { Choice } from '../ui/Choice.tsx';
import { Ready } from '../ui/states.tsx';
import { KeysPart } from './KeysPart.tsx';
import { OnceShown } from './OnceShown.tsx';
import { OwnAccount } from './OwnAccount.tsx';
import { ROLE_OPTIONS, roleWords, type Role } from './roles.ts';

type Row = Schemas['PersonRow'];

/** Everybody of the lab, and one's own account. */
export function PeopleView() {
  const access = useAccess();
  const owner = access.role === 'OWNER';
  const people = useQuery({ queryKey: ['people'], queryFn: () => value(api.GET('/api/people')) });
  return (
    <>
      <Opening
        title="People and keys"
        sentence={
          <>
            Who works at <b className="font-semibold">{access.lab}</b>, where you are signed in, and which programs come
            in your name.
          </>
        }
      >
        <Link to="/people/log" className="button">
          Who did what
        </Link>
      </Opening>
      <div className="grid gap-x-10 lg:grid-cols-[1fr_420px]">
        <section className="min-w-0">
          <h2 className="border-b border-hair pb-0.5">People</h2>
          <Ready query={people} what="the people">
            {(rows) => <Everybody rows={rows} owner={owner} me={access.person ?? ''} />}
          </Ready>
          {owner && <InvitePart />}
          <KeysPart owner={owner} reader={access.role === 'READER'} />
        </section>
        <OwnAccount />
      </div>
    </>
  );
}

function Everybody({ rows, owner, me }: { rows: readonly Row[]; owner: boolean; me: string }) {
  const queries = useQueryClient();
  const changed = () => void queries.invalidateQueries({ queryKey: ['people'] });
  const role = useMutation({
    mutationFn: ({ id, role: to }: { id: number; role: Role }) =>
      value(api.PUT('/api/people/{id}/role', { params: { path: { id } }, body: { role: to } })),
    onSuccess: () => {
      changed();
      // It may have been one's own.
      void queries.invalidateQueries({ queryKey: ['access'] });
    },
  });
  const remove = useMutation({
    mutationFn: (id: number) => value(api.DELETE('/api/people/{id}', { params: { path: { id } } })),
    onSuccess: changed,
  });
  const reset = useMutation({
    mutationFn: (row: Row) =>
      value(api.POST('/api/people/{id}/reset', { params: { path: { id: row.id } } })).then((made) => ({
        ...made,
        name: row.name,
      })),
  });
  const trouble = role.error ?? remove.error ?? reset.error;
  return (
    <>
      <div className="wide">
        <table className="data w-full">
          <thead>
            <tr>
              <th>Name</th>
              <th>Role</th>
              {owner && <th>Here last</th>}
              {owner && (
                <th>
                  <span className="sr-only">What can be done</span>
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {rows.map((p) => (
              <tr key={p.id}>
                <td className="font-semibold">
                  {p.name}
                  {p.name === me && <span className="small"> you</span>}
                </td>
                <td>
                  {owner ? (
                    <Choice
                      name={`Role of ${p.name}`}
                      value={p.role}
                      options={ROLE_OPTIONS}
                      onChoose={(to) => {
                        if (
                          to !== p.role &&
                          (p.name !== me ||
                            window.confirm('This is your own role. You cannot give it back to yourself.'))
                        )
                          role.mutate({ id: p.id, role: to });
                      }}
                    >
                      {roleWords(p.role)}
                    </Choice>
                  ) : (
                    roleWords(p.role)
                  )}
                </td>
                {owner && (
                  <td className="small">
                    {p.lastAt ? moment(p.lastAt) : 'not signed in'}
                    {p.places > 1 && `, ${p.places} places`}
                  </td>
                )}
                {owner && (
                  <td className="small text-right whitespace-nowrap">
                    {p.name !== me && (
                      <>
                        <button className="link" onClick={() => reset.mutate(p)}>
                          new password
                        </button>{' '}
                        <button
                          className="link"
                          aria-label={`Remove ${p.name}`}
                          onClick={() => {
                            if (
                              window.confirm(
                                `Remove ${p.name}? They are signed out at once, and their keys end. What they did keeps their name.`,
                              )
                            )
                              remove.mutate(p.id);
                          }}
                        >
                          remove
                        </button>
                      </>
                    )}
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {trouble && (
        <p role="alert" className="mt-1 text-plum">
          {trouble.message}
        </p>
      )}
      {reset.data && (
        <OnceShown
          what={`Link with which ${reset.data.name} chooses a new password`}
          text={linkOf(reset.data.token)}
          until={reset.data.expiresAt}
        />
      )}
    </>
  );
}

function InvitePart() {
  const queries = useQueryClient();
  const [role, setRole] = useState<Role>('REVIEWER');
  const open = useQuery({
    queryKey: ['people', 'invitations'],
    queryFn: () => value(api.GET('/api/people/invitations')),
  });
  const changed = () => void queries.invalidateQueries({ queryKey: ['people', 'invitations'] });
  const invite = useMutation({
    mutationFn: () => value(api.POST('/api/people/invitations', { body: { role } })),
    onSuccess: changed,
  });
  const close = useMutation({
    mutationFn: (id: number) => value(api.DELETE('/api/people/invitations/{id}', { params: { path: { id } } })),
    onSuccess: changed,
  });
  return (
    <div className="mt-3">
      <p>
        Invite a{' '}
        <Choice name="Role of who is invited" value={role} options={ROLE_OPTIONS} onChoose={setRole}>
          {roleWords(role)}
        </Choice>{' '}
        <button className="button ml-2" disabled={invite.isPending} onClick={() => invite.mutate()}>
          Make a link
        </button>
      </p>
      {(invite.error ?? close.error) && (
        <p role="alert" className="mt-1 text-plum">
          {(invite.error ?? close.error)!.message}
        </p>
      )}
      {invite.data && (
        <OnceShown what="Invitation, for one person" text={linkOf(invite.data.token)} until={invite.data.expiresAt} />
      )}
      {(open.data ?? []).length > 0 && (
        <ul className="mt-2" aria-label="Open links">
          {open.data!.map((i) => (
            <li key={i.id} className="small flex flex-wrap gap-x-3 border-b border-hair-2 py-1">
              <span>{i.role ? `to join as ${roleWords(i.role)}` : `a new password for ${i.name}`}</span>
              <span>
                made by {i.madeBy}, until {moment(i.expiresAt)}
              </span>
              <button className="link ml-auto" onClick={() => close.mutate(i.id)}>
                revoke
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** The secret comes after the #: it is not sent to any server until the page asks. */
const linkOf = (token: string) => `${window.location.origin}/welcome#${token}`;
