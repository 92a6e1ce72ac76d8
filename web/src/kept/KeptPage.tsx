import { useQuery } from '@tanstack/react-query';
import { api, value, Problem } from '../api/client.ts';
import { classes, day, index, placeOf, quantity } from '../format/format.ts';
import { againstBase, againstHeading, intervalWords } from '../standings/question/held-against.ts';
import { positionWords } from '../standings/list/PrintableList.tsx';
import { leftOutWords } from '../standings/left-out.ts';
import { useTitle } from '../shell/title.ts';
import { Loading, Trouble } from '../ui/states.tsx';

/** Columns of areas that a page has room for. */
const MOST_AREAS = 9;

/** A standing as it was on a day, for readers: no sign-in, and nothing that changes. */
export function KeptPage({ name }: { name: string }) {
  const kept = useQuery({
    queryKey: ['kept', name],
    queryFn: () => value(api.GET('/api/kept/{key}', { params: { path: { key: name } } })),
    staleTime: Infinity,
  });
  useTitle(kept.data?.title ?? 'Standings');
  if (kept.isPending)
    return (
      <main className="p-6">
        <Loading what="the standing" />
      </main>
    );
  if (kept.isError)
    return (
      <main className="p-6">
        <h1>Not here</h1>
        {kept.error instanceof Problem && kept.error.status === 404 ? (
          <p className="mt-2">
            There is no standing under this address. It may have been taken out, or the address is not whole.
          </p>
        ) : (
          <Trouble error={kept.error} again={() => void kept.refetch()} />
        )}
      </main>
    );
  const { standings, title, words, caption, at } = kept.data;
  const parts = standings.metric ? [] : standings.parts.slice(0, MOST_AREAS);
  const one = standings.metric;
  const among = standings.classes.length === 0 ? 'configurations' : classes(standings.classes);
  return (
    <main className="mx-auto max-w-[980px] p-6">
      <h1>{title ?? 'Standings'}</h1>
      <p className="mt-1 text-[17px] text-ink-2">{caption}</p>
      {words && (
        <div className="mt-3 max-w-[640px] text-[16px] leading-relaxed">
          {words.split(/\n{2,}/).map((paragraph, i) => (
            <p key={i} className="mt-2 whitespace-pre-line">
              {paragraph}
            </p>
          ))}
        </div>
      )}
      <p className="small">As it was on {day(at)}. Places are intervals where noise does not allow one number.</p>
      <div className="wide">
        <table className="data mt-4 w-full">
          <thead>
            <tr>
              <th>Place</th>
              <th>Model and configuration</th>
              {one && <th className="!text-right">{one.name}</th>}
              <th className="!text-right">{againstHeading(standings)}</th>
              <th className="!text-right">95 % interval</th>
              {parts.map((p) => (
                <th key={p.key} className="!text-right">
                  {p.name}
                </th>
              ))}
              <th>
                Among {standings.placed} {among}
              </th>
              <th className="!text-right">{one ? 'Runs' : 'Tests'}</th>
            </tr>
          </thead>
          <tbody>
            {standings.rows
              .filter((r) => r.status !== 'NOT_LINKED')
              .map((r) => (
                <tr key={r.configuration.id}>
                  <td className="font-title text-[16px] whitespace-nowrap">{placeOf(r)}</td>
                  <td>
                    <span className="font-semibold">
                      {r.configuration.maker} {r.configuration.model}
                    </span>
                    <span className="small block">
                      {r.configuration.name}
                      {r.status === 'PROVISIONAL' ? ', provisional: under half of the weight' : ''}
                    </span>
                  </td>
                  {one && (
                    <td className="text-right whitespace-nowrap">
                      {r.value === undefined ? '–' : quantity(r.value, one.unit)}
                    </td>
                  )}
                  <td className="text-right">{againstBase(r, one)}</td>
                  <td className="text-right whitespace-nowrap">{intervalWords(r, one)}</td>
                  {parts.map((p, i) => {
                    const mark = r.parts.find((m) => m.part === i);
                    return (
                      <td key={p.key} className="text-right">
                        {mark ? index(100 * Math.exp(mark.merit)) : '–'}
                      </td>
                    );
                  })}
                  <td className="small">{positionWords(r, among, standings.placed)}</td>
                  <td className="text-right">{one ? r.runs : `${r.tests}/${standings.metrics.length}`}</td>
                </tr>
              ))}
          </tbody>
        </table>
      </div>
      {standings.leftOut.length > 0 && <p className="small mt-3">Left out: {leftOutWords(standings.leftOut)}.</p>}
      <p className="small mt-3">Made with Yarrowmark.</p>
    </main>
  );
}
