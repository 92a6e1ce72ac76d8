import type { Schemas } from '../api/client.ts';
import { percent } from '../format/format.ts';
import type { Standings } from './question/ask.ts';
import { named } from '../format/named.ts';

const OVER = { GROUP: 'groups', SUITE: 'suites', TEST: 'tests' } as const;

/** How often each of the first five comes first when the weights are drawn at random around the purpose. */
export function FirmTop({ firmness, standings }: { firmness: Schemas['Firmness']; standings: Standings }) {
  const name = (id: number) => {
    const c = standings.rows.find((r) => r.configuration.id === id)?.configuration;
    return c ? named(c) : '…';
  };
  const one = firmness.weightings === 1;
  return (
    <p className="small">
      How sure is first place?{' '}
      {one ? 'One part alone leaves no weights to vary, so ' : `In ${firmness.weightings} random weightings, `}
      {firmness.first
        .filter((f, i) => f.share > 0 || i === 0)
        .map((f) => `${name(f.configurationId)} comes first in ${percent(f.share)}`)
        .join(', ')}
      {firmness.others > 0.0005 && `, others in ${percent(firmness.others)}`}.
      {!one && ` Each time the ${OVER[firmness.over]} were weighed otherwise, around what the purpose says.`}
    </p>
  );
}
