import type { Standings } from '../question/ask.ts';

type Row = Standings['rows'][number];
export type Line = { kind: 'row'; row: Row } | { kind: 'heading'; text: string };

/** From so many rows on that could all stand anywhere, they are told together instead of each with the same place. */
const MANY_ALIKE = 10;

/** Placed ones first, then those that cannot have a place, each under what is the matter with them. */
export function lines(rows: readonly Row[]): Line[] {
  const placed = rows.filter((r) => r.status === 'PLACED');
  const anywhere = placed.filter((r) => r.placeBest === 1 && r.placeWorst === placed.length);
  const apart = anywhere.length >= MANY_ALIKE;
  const under = (text: string, of: readonly Row[]): Line[] =>
    of.length > 0 ? [{ kind: 'heading', text }, ...of.map<Line>((row) => ({ kind: 'row', row }))] : [];
  return [
    ...(apart ? placed.filter((r) => !anywhere.includes(r)) : placed).map<Line>((row) => ({ kind: 'row', row })),
    ...(apart
      ? under(
          `Not told apart: each of these ${anywhere.length} could have any place; more runs would tell. Ordered by what was measured`,
          anywhere,
        )
      : []),
    ...under(
      'Provisional: results for less than half of the weight',
      rows.filter((r) => r.status === 'PROVISIONAL'),
    ),
    ...under(
      'Cannot be placed: no chain of shared tests leads to the base',
      rows.filter((r) => r.status === 'NOT_LINKED'),
    ),
  ];
}

/** −1 where the configuration has no line. */
export function lineOf(list: readonly Line[], configuration: number | string | null): number {
  return list.findIndex((l) => l.kind === 'row' && l.row.configuration.id === configuration);
}
