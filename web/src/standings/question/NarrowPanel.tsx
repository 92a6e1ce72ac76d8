import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { api, value } from '../../api/client.ts';
import { FactCondition } from '../../shelf/fact/FactCondition.tsx';
import type { StandingsSearch } from '../../shell/search-params.ts';
import { Panel } from '../../ui/Panel.tsx';
import { readCondition, writeCondition } from './narrow.ts';

interface Props {
  open: boolean;
  onClose: () => void;
  search: StandingsSearch;
  say: (change: Partial<StandingsSearch>) => void;
  currency: string;
}

const NOBODY_LEFT_OUT = {
  only: undefined,
  tests: undefined,
  makers: undefined,
  from: undefined,
  to: undefined,
  since: undefined,
  until: undefined,
  facts: undefined,
  firmware: undefined,
  power: undefined,
  review: undefined,
  models: undefined,
  fresh: undefined,
} as const;

/** Who is in. Everything follows at once; the sentence says what was chosen. */
export function NarrowPanel({ open, onClose, search, say, currency }: Props) {
  const makers = useQuery({
    queryKey: ['makers'],
    queryFn: () => value(api.GET('/api/makers')),
    staleTime: 60_000,
    enabled: open,
  });
  const facts = search.facts ?? [];
  const setFact = (i: number, text: string | undefined) => {
    const next =
      text === undefined
        ? facts.filter((_, k) => k !== i)
        : facts.map((f, k) => (k === i ? text : f)).concat(i === facts.length ? [text] : []);
    say({ facts: next.length > 0 ? next : undefined });
  };
  return (
    <Panel open={open} onClose={onClose} title="Filters" side>
      <div className="flex flex-col gap-4 pt-2">
        <Part title="Of each model">
          <Options
            name="Of each model"
            value={search.models}
            options={[
              [undefined, 'every configuration'],
              ['NEWEST', 'the newest'],
              ['BEST', 'the best'],
              ['FACTORY', 'as it came'],
            ]}
            onChoose={(models) => say({ models })}
          />
        </Part>
        <Part title="Maker">
          <div className="flex flex-wrap gap-x-4 gap-y-1">
            {(makers.data ?? []).map((maker) => (
              <label key={maker} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  checked={search.makers?.includes(maker) ?? false}
                  onChange={(e) => {
                    const next = e.target.checked
                      ? [...(search.makers ?? []), maker]
                      : (search.makers ?? []).filter((m) => m !== maker);
                    say({ makers: next.length > 0 ? next : undefined });
                  }}
                />
                {maker}
              </label>
            ))}
          </div>
        </Part>
        <Part title={`Price${currency ? ` in ${currency}` : ''}`}>
          <Range name="price" from={search.from} to={search.to} onChange={(from, to) => say({ from, to })} />
        </Part>
        <Part title="Year of release">
          <Range
            name="year of release"
            from={search.since}
            to={search.until}
            onChange={(since, until) => say({ since, until })}
          />
        </Part>
        <Part title="Facts">
          {[...facts, undefined].map((text, i) => {
            const c = text === undefined ? undefined : readCondition(text);
            return (
              <p key={`${i}-${c?.key ?? ''}`} className="text-[15px]">
                with{' '}
                <FactCondition
                  fact={c?.key}
                  relation={c?.relation}
                  value={c?.value}
                  onChange={(next) =>
                    setFact(
                      i,
                      next.fact === undefined
                        ? undefined
                        : writeCondition({
                            key: next.fact,
                            relation: next.relation ?? 'KNOWN',
                            value: next.value ?? '',
                          }),
                    )
                  }
                />
              </p>
            );
          })}
        </Part>
        <Part title="Measured">
          <Options
            name="Power"
            value={search.power}
            options={[
              [undefined, 'on mains or battery'],
              ['MAINS', 'on mains'],
              ['BATTERY', 'on battery'],
            ]}
            onChoose={(power) => say({ power })}
          />
        </Part>
        <Part title="Review">
          <Options
            name="Review"
            value={search.review}
            options={[
              [undefined, 'in any state'],
              ['WAITING', 'waiting'],
              ['IN_REVIEW', 'in review'],
              ['REVIEWED', 'reviewed'],
            ]}
            onChoose={(review) => say({ review })}
          />
        </Part>
        <Part title="Out of date">
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={search.firmware ?? false}
              onChange={(e) => say({ firmware: e.target.checked ? true : undefined })}
            />{' '}
            only the newest firmware of each model
          </label>
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={search.fresh ?? false}
              onChange={(e) => say({ fresh: e.target.checked ? true : undefined })}
            />{' '}
            nothing stale: neither an older firmware nor an older suite version
          </label>
        </Part>
        <button className="button self-start" onClick={() => say(NOBODY_LEFT_OUT)}>
          Reset
        </button>
      </div>
    </Panel>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h3>{title}</h3>
      <div className="mt-1 flex flex-col gap-1">{children}</div>
    </section>
  );
}

function Options<T extends string>({
  name,
  value: now,
  options,
  onChoose,
}: {
  name: string;
  value: T | undefined;
  options: readonly (readonly [T | undefined, string])[];
  onChoose: (value: T | undefined) => void;
}) {
  return (
    <div role="radiogroup" aria-label={name} className="flex flex-wrap gap-x-4 gap-y-1">
      {options.map(([option, label]) => (
        <label key={label} className="flex items-center gap-1.5">
          <input type="radio" name={name} checked={now === option} onChange={() => onChoose(option)} /> {label}
        </label>
      ))}
    </div>
  );
}

/** From and to; either may be left open. Said when the field is left, so that half a number changes nothing. */
function Range({
  name,
  from,
  to,
  onChange,
}: {
  name: string;
  from: number | undefined;
  to: number | undefined;
  onChange: (from: number | undefined, to: number | undefined) => void;
}) {
  const [typed, setTyped] = useState<{ from: string; to: string } | null>(null);
  const shown = typed ?? { from: from === undefined ? '' : String(from), to: to === undefined ? '' : String(to) };
  const read = (text: string) => (text.trim() === '' || Number.isNaN(Number(text)) ? undefined : Number(text));
  const done = () => {
    if (typed) {
      onChange(read(typed.from), read(typed.to));
      setTyped(null);
    }
  };
  const field = (which: 'from' | 'to') => (
    <input
      className="field w-24"
      inputMode="decimal"
      aria-label={`${which === 'from' ? 'Lowest' : 'Highest'} ${name}`}
      placeholder="any"
      value={shown[which]}
      aria-invalid={shown[which].trim() !== '' && Number.isNaN(Number(shown[which]))}
      onChange={(e) => setTyped({ ...shown, [which]: e.target.value })}
      onBlur={done}
      onKeyDown={(e) => {
        if (e.key === 'Enter') done();
      }}
    />
  );
  return (
    <p className="flex items-baseline gap-2">
      from {field('from')} to {field('to')}
    </p>
  );
}
