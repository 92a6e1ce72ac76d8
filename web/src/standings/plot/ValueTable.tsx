import { Link } from '@tanstack/react-router';
import { useState } from 'react';
import type { Schemas } from '../../api/client.ts';
import { index, quantity } from '../../format/format.ts';
import { named } from '../../format/named.ts';
import type { Standings } from '../question/ask.ts';
import { costOf } from './cost.ts';

type Against = Schemas['Against'];
type Point = Against['points'][number];

/** The plot as a table: what each costs for how much, and another price to try without changing the model. */
export function ValueTable({
  data,
  standings,
  points,
  height,
  said,
  unit,
  tried,
  onTry,
}: {
  data: Against;
  standings: Standings;
  points: readonly Point[];
  height: (p: Point) => number;
  said: (x: number) => string;
  unit: string;
  tried: ReadonlyMap<number, number>;
  onTry: (id: number, amount: number | undefined) => void;
}) {
  const one = standings.per === undefined ? standings.metric : undefined;
  const rows = new Map(standings.rows.map((r) => [r.configuration.id, r]));
  const cost = costOf(data.quantity, one, points.map(height));
  const canTry = data.quantity.key === 'price' && data.quantity.unit !== '';
  return (
    <details className="mt-2" open={cost !== undefined || tried.size > 0}>
      <summary className="small cursor-pointer">The same as a table</summary>
      <table className="data mt-1 w-full max-w-[960px]">
        <thead>
          <tr>
            <th>Model and configuration</th>
            <th className="text-right">
              {data.quantity.label}
              {unit}
            </th>
            <th className="text-right">{one ? one.name : 'Index'}</th>
            {cost && <th className="text-right">{cost.heading}</th>}
            <th>Best value</th>
          </tr>
        </thead>
        <tbody>
          {[...points]
            .sort((a, b) => (one?.direction === 'LESS_IS_BETTER' ? -1 : 1) * (height(b) - height(a)))
            .map((p) => {
              const c = rows.get(p.configurationId)!.configuration;
              return (
                <tr key={p.configurationId}>
                  <td>
                    <Link
                      to="/shelf/configurations/$configurationId"
                      params={{ configurationId: String(p.configurationId) }}
                      className="font-semibold hover:underline"
                    >
                      {c.maker} {c.model}
                    </Link>{' '}
                    <span className="small">{c.name}</span>
                  </td>
                  <td className="text-right whitespace-nowrap">
                    {canTry ? (
                      <TryPrice
                        key={p.x}
                        shown={p.shown || said(p.x)}
                        amount={p.x}
                        isTried={tried.has(p.configurationId)}
                        of={named(c)}
                        unit={data.quantity.unit}
                        onTry={(amount) => onTry(p.configurationId, amount)}
                      />
                    ) : (
                      p.shown || said(p.x)
                    )}
                  </td>
                  <td className="text-right">{one ? quantity(height(p), one.unit) : index(height(p))}</td>
                  {cost && (
                    <td className="text-right" title={cost.words(p.x, height(p))}>
                      {quantity(Number(cost.cost(p.x, height(p)).toPrecision(3)), '1')}
                    </td>
                  )}
                  <td>{p.frontier ? 'on the frontier' : ''}</td>
                </tr>
              );
            })}
        </tbody>
      </table>
    </details>
  );
}

function TryPrice({
  shown,
  amount,
  isTried,
  of,
  unit,
  onTry,
}: {
  shown: string;
  amount: number;
  isTried: boolean;
  of: string;
  unit: string;
  onTry: (amount: number | undefined) => void;
}) {
  const [typing, setTyping] = useState<string | null>(null);
  if (typing === null)
    return (
      <>
        {shown}{' '}
        <button
          className="link small"
          aria-label={`Try another price of ${of}`}
          onClick={() => setTyping(String(amount))}
        >
          {isTried ? 'tried' : 'try another'}
        </button>
        {isTried && (
          <button
            className="link small ml-1"
            aria-label={`Back to the price of ${of}`}
            onClick={() => onTry(undefined)}
          >
            undo
          </button>
        )}
      </>
    );
  const value = Number(typing.trim().replace(',', '.'));
  const wrong = !(value > 0 && value <= 1e9);
  return (
    <form
      className="inline-flex items-baseline gap-1"
      onSubmit={(e) => {
        e.preventDefault();
        if (wrong) return;
        onTry(value);
        setTyping(null);
      }}
    >
      <input
        className="field w-24 text-right"
        inputMode="decimal"
        autoFocus
        aria-label={`Price of ${of} to try, in ${unit}`}
        aria-invalid={wrong}
        value={typing}
        onChange={(e) => setTyping(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Escape') setTyping(null);
        }}
      />
      <button className="link small" disabled={wrong}>
        try
      </button>
    </form>
  );
}
