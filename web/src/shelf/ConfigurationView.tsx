import { useQuery } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { api, value } from '../api/client.ts';
import { day, moment } from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import { Opening } from '../shell/Opening.tsx';
import { tableActions } from '../shell/table-store.ts';
import { Ready } from '../ui/states.tsx';
import { OnTableButton } from './OnTableButton.tsx';

const route = getRouteApi('/shelf/configurations/$configurationId');

/** Every fact of a configuration, detected or typed, and what changed since its parent. */
export function ConfigurationView() {
  const id = Number(route.useParams().configurationId);
  useKeys([{ key: 'Enter', does: 'Put it on the table, or take it off', run: () => void tableActions.toggle(id) }]);
  const page = useQuery({ queryKey: ['configuration', id], queryFn: () => value(api.GET('/api/configurations/{id}', { params: { path: { id } } })) });
  const sessions = useQuery({ queryKey: ['configuration', id, 'sessions'], queryFn: () => value(api.GET('/api/configurations/{id}/sessions', { params: { path: { id } } })) });
  return (
    <Ready query={page} what="the configuration">
      {({ configuration: c, groups, changed, parentId, parentName, createdAt }) => (
        <>
          <Opening
            title={c.name}
            sentence={
              <>
                A configuration of <Link to="/shelf/models/$modelId" params={{ modelId: String(c.modelId) }} className="choice">{c.maker} {c.model}</Link>, {c.unit}, since {day(createdAt)}.
              </>
            }
          >
            <OnTableButton id={id} />
            <Link to="/ledger" search={{ configuration: id }} className="button">Its readings</Link>
          </Opening>
          <div className="grid gap-x-10 lg:grid-cols-[1fr_340px]">
            <div className="gap-x-8 sm:columns-2">
              {groups.map((group) => (
                <section key={group.group} className="mb-4 break-inside-avoid">
                  <h2 className="border-b border-hair pb-0.5">{group.group}</h2>
                  <dl>
                    {group.facts.map((fact) => (
                      <div key={fact.key} className="flex gap-3 border-b border-hair-2 py-1">
                        <dt className="text-ink-2">{fact.label}</dt>
                        <dd className="ml-auto min-w-0 text-right break-words">
                          {fact.shown} <span className="small text-ink-3">{fact.detected ? 'detected' : 'typed'}</span>
                        </dd>
                      </div>
                    ))}
                  </dl>
                </section>
              ))}
              {groups.length === 0 && <p className="text-ink-2">No fact is known of it.</p>}
            </div>
            <aside>
              {parentId !== undefined && (
                <section className="mb-6">
                  <h2>What changed</h2>
                  <p className="small">since <Link to="/shelf/configurations/$configurationId" params={{ configurationId: String(parentId) }} className="link">{parentName}</Link></p>
                  {changed.map((fact) => (
                    <p key={fact.key} className="border-b border-hair-2 py-1.5">
                      {fact.label} <b className="font-semibold">{fact.before ?? 'not known'} → {fact.after ?? 'not known'}</b>
                    </p>
                  ))}
                </section>
              )}
              <h2>Sessions</h2>
              <Ready query={sessions} what="its sessions">
                {(list) => (
                  <ul>
                    {list.map((s) => (
                      <li key={s.id} className="border-b border-hair-2 py-1.5">
                        <Link to="/ledger" search={{ session: s.id }} className="font-semibold hover:underline">{s.planName}</Link>, {moment(s.startedAt)}
                        <span className="small block">{s.onMains === undefined ? 'power not known' : s.onMains ? 'on mains' : 'on battery'}, {s.state.toLowerCase()}</span>
                      </li>
                    ))}
                    {list.length === 0 && <li className="small">Not measured yet.</li>}
                  </ul>
                )}
              </Ready>
            </aside>
          </div>
        </>
      )}
    </Ready>
  );
}
