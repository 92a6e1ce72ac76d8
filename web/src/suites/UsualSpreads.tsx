import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useReader } from '../access/access-context.ts';
import { api, value } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import { number, TEST_GROUPS, testGroup, type TestGroup } from '../format/format.ts';
import { Ready } from '../ui/states.tsx';

/** How far two single results usually differ, by group: what a test that was run once is read with where nobody measured it. */
export function UsualSpreads() {
  const spreads = useQuery({ queryKey: ['usual-spreads'], queryFn: () => value(api.GET('/api/usual-spreads')) });
  return (
    <details className="mt-2 max-w-2xl">
      <summary className="cursor-pointer py-1.5">How repeatable tests usually are</summary>
      <p className="small">
        A test that was run once is read with the spread that is usual for its group, of runs and days together, until
        it is run again or its suite says how repeatable it is. What rests on it says “probably”.
      </p>
      <Ready query={spreads} what="the usual spreads">
        {({ percent }) => (
          <ul className="mt-1">
            {TEST_GROUPS.map((group) => (
              <Spread key={`${group} ${percent[group]}`} group={group} percent={percent[group]!} />
            ))}
          </ul>
        )}
      </Ready>
    </details>
  );
}

function Spread({ group, percent }: { group: TestGroup; percent: number }) {
  const queries = useQueryClient();
  const reader = useReader();
  const [text, setText] = useState(number(percent));
  const change = useMutation({
    mutationFn: (to: number) => value(api.PUT('/api/usual-spreads', { body: { percent: { [group]: to } } })),
    onSuccess: (now) => {
      queries.setQueryData(['usual-spreads'], now);
      return changed(queries, 'scores');
    },
  });
  const save = () => {
    const to = Number(text.replace(',', '.'));
    if (text.trim() !== '' && to !== percent) change.mutate(to);
  };
  return (
    <li className="flex flex-wrap items-baseline gap-x-2 border-b border-hair-2 py-1">
      <label className="flex items-baseline gap-2">
        <span className="w-36">{testGroup(group)}</span>
        <input
          className="field w-20 text-right"
          inputMode="decimal"
          maxLength={8}
          value={text}
          disabled={change.isPending || reader}
          onChange={(e) => setText(e.target.value)}
          onBlur={save}
          onKeyDown={(e) => e.key === 'Enter' && save()}
        />
        %
      </label>
      {change.isError && (
        <span role="alert" className="small text-plum">
          {change.error.message}
        </span>
      )}
    </li>
  );
}
