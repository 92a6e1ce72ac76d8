import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api, value } from '../../api/client.ts';
import { Choice } from '../../ui/Choice.tsx';
import { Ready } from '../../ui/states.tsx';
import type { Ask, Standings } from '../question/ask.ts';
import { useQuantities } from '../question/StandingsSentence.tsx';
import { readTried, writeTried } from './cost.ts';
import { ValuePlot } from './ValuePlot.tsx';

/** Index against what it costs, with the frontier of best value. */
export function AgainstPlot({
  ask,
  standings,
  against,
  onAgainst,
  tried,
  onTry,
}: {
  ask: Ask;
  standings: Standings;
  against: string;
  onAgainst: (key: string) => void;
  /** Prices that are tried, as the address has them. */
  tried: readonly string[] | undefined;
  onTry: (tried: string[] | undefined) => void;
}) {
  const quantities = useQuantities();
  const plot = useQuery({
    queryKey: ['against', ask, against, tried],
    queryFn: () =>
      value(
        api.GET('/api/standings/against', {
          params: { query: { ...ask, quantity: against, ...(tried && { tried: [...tried] }) } },
        }),
      ),
    placeholderData: keepPreviousData,
  });
  const prices = readTried(tried);
  const onPrice = (id: number, amount: number | undefined) => {
    const next = new Map(prices);
    if (amount === undefined) next.delete(id);
    else next.set(id, amount);
    onTry(writeTried(next));
  };
  const chosen = quantities.data?.find((q) => q.key === against);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      <p className="text-[15px] text-ink-2">
        {standings.metric?.name ?? 'Index'} against{' '}
        <Choice
          name="Held against"
          value={against}
          options={(quantities.data ?? []).map((q) => ({ value: q.key, label: q.label, detail: q.unit }))}
          onChoose={onAgainst}
        >
          {chosen?.label ?? '…'}
        </Choice>
        .{' '}
        {plot.data && (
          <>
            The line joins those that no other beats in both
            {plot.data.without > 0 && `; of ${plot.data.without} placed ones it is not known`}.
          </>
        )}
      </p>
      <Ready query={plot} what="the plot">
        {(data) =>
          data.points.length === 0 ? (
            <p className="mt-4 border-l-2 border-gold pl-4 text-ink-2">
              It is not known of any of those that are placed. Enter it on the shelf, or hold them against something
              else.
            </p>
          ) : (
            <ValuePlot data={data} standings={standings} tried={prices} onTry={onPrice} />
          )
        }
      </Ready>
    </div>
  );
}
