import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useReader } from '../access/access-context.ts';
import { api, value } from '../api/client.ts';
import type { Sizes } from '../format/verdict.ts';
import { Choice } from '../ui/Choice.tsx';

/** As the address has it: what the lab usually says is left out. */
export type AskedSizes = 'percent' | Sizes;

const OPTIONS: { value: AskedSizes; label: string; detail: string }[] = [
  { value: 'percent', label: 'in per cent', detail: '12 % higher' },
  { value: 'times', label: 'as times', detail: '1.12×' },
  { value: 'unit', label: 'in the unit', detail: '16 s sooner, 48 points more' },
];
const KEY = ['usual-sizes'];
const of = (sizes: 'PERCENT' | 'TIMES' | 'UNIT') => sizes.toLowerCase() as AskedSizes;

/** How differences are said: as asked, else as the lab usually says them. */
export function useSizes(asked: AskedSizes | undefined): {
  sizes: Sizes | undefined;
  said: AskedSizes;
  usual: AskedSizes;
} {
  const lab = useQuery({
    queryKey: KEY,
    queryFn: () => value(api.GET('/api/compare/sizes')),
    staleTime: 60_000,
  });
  const usual = lab.data ? of(lab.data.sizes) : 'percent';
  const said = asked ?? usual;
  return { sizes: said === 'percent' ? undefined : said, said, usual };
}

/** The choice in the sentence; where it is another than usual, a press makes it the usual one here. */
export function SizesChoice({
  asked,
  onChoose,
}: {
  asked: AskedSizes | undefined;
  onChoose: (sizes: AskedSizes | undefined) => void;
}) {
  const reader = useReader();
  const queries = useQueryClient();
  const { said, usual } = useSizes(asked);
  const make = useMutation({
    mutationFn: () =>
      value(api.PUT('/api/compare/sizes', { body: { sizes: said.toUpperCase() as 'PERCENT' | 'TIMES' | 'UNIT' } })),
    onSuccess: (now) => {
      queries.setQueryData(KEY, now);
      onChoose(undefined);
    },
  });
  return (
    <>
      <Choice
        name="Sizes"
        value={said}
        options={OPTIONS}
        onChoose={(next) => onChoose(next === usual ? undefined : next)}
      >
        {OPTIONS.find((o) => o.value === said)!.label}
      </Choice>
      {said !== usual && !reader && (
        <>
          {' '}
          <button className="link small" disabled={make.isPending} onClick={() => make.mutate()}>
            make it usual here
          </button>
        </>
      )}
    </>
  );
}
