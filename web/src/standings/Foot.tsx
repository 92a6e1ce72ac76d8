import { useQuery } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useState, type ReactNode } from 'react';
import { api, value } from '../api/client.ts';
import { partWords } from '../format/parts.ts';
import { classes, deviceClass, percent } from '../format/format.ts';
import { notCountedWords } from '../format/takes.ts';
import type { StandingsSearch } from '../shell/search-params.ts';
import { partName, scopeOf, type Standings } from './question/ask.ts';
import { coversAll } from './list/covers-all.ts';
import { leftOutWords } from './left-out.ts';
import { UnfinishedNote } from '../ui/UnfinishedNote.tsx';

/** What the sentence does not say: how many, how sure, and what takes no part. */
export function Foot({
  standings,
  without,
  onTakeIn,
  onSay,
  children,
}: {
  standings: Standings;
  without: readonly string[] | undefined;
  onTakeIn: (key: string) => void;
  onSay: (change: Partial<StandingsSearch>) => void;
  children?: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <div className="mt-2 -mb-3 shrink-0">
      {children}
      <UnfinishedNote within={standings.classes} />
      {without && <LeftOutFoot without={without} onTakeIn={onTakeIn} />}
      <p className="small">
        {standings.placed} placed among {classes(standings.classes)}; 95 % intervals, {coversAll(standings)}.
        {(standings.offers?.length ?? 0) > 0 && (
          <>
            {' '}
            More would have a place over{' '}
            {standings.offers!.map((o, i) => (
              <span key={o.key}>
                {i > 0 && ', '}
                <button className="link" onClick={() => onSay(scopeOf(o.key))}>
                  {o.name} ({o.placed})
                </button>
              </span>
            ))}
            .
          </>
        )}
        {standings.per && <> Every score is divided: per {standings.per}.</>}
        {!open && <span className="print:hidden"> {shortly(standings)}</span>}{' '}
        <button className="link" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'less' : 'more'}
        </button>{' '}
        <Link to="/kept" className="link print:hidden">
          Saved standings
        </Link>
      </p>
      <p className={`small ${open ? '' : 'hidden print:block'}`}>
        Whiskers and small numbers are 95 % intervals, with the noise of the base and of tests that are missing.
        {(standings.notCounted ?? 0) > 0 && <> {notCountedWords(standings.notCounted!)}.</>}
        {(standings.apart ?? []).map((a) => (
          <span key={a.deviceClass}>
            {' '}
            {a.configurations} in the class {deviceClass(a.deviceClass)} {a.configurations === 1 ? 'shares' : 'share'}{' '}
            no test with these:{' '}
            <button className="link" onClick={() => onSay({ classes: [a.deviceClass], base: undefined })}>
              rank that class by itself
            </button>
            .
          </span>
        ))}
        {standings.unknown.length > 0 && (
          <> Not in: {standings.unknown.map((u) => `${u.configurations} ${u.what}`).join(', ')}.</>
        )}
        {standings.leftOut.length > 0 && <> Left out: {leftOutWords(standings.leftOut)}.</>}
        {!standings.metric && standings.parts.length > 1 && standings.parts.length < 12 && (
          <> Weights: {standings.parts.map((p) => `${partName(p)} ${percent(p.weight)}`).join(', ')}.</>
        )}
      </p>
    </div>
  );
}

/** How much there is to read behind "more". */
function shortly(standings: Standings): string {
  const apart = (standings.apart ?? []).reduce((sum, a) => sum + a.configurations, 0);
  const unknown = standings.unknown.reduce((sum, u) => sum + u.configurations, 0) + apart;
  return [
    standings.leftOut.length > 0 &&
      `${standings.leftOut.length} ${standings.leftOut.length === 1 ? 'test' : 'tests'} left out.`,
    unknown > 0 && `${unknown} not in.`,
    (standings.notCounted ?? 0) > 0 && `${notCountedWords(standings.notCounted!)}.`,
  ]
    .filter((w) => w !== false)
    .join(' ');
}

/** Parts that somebody left out, to include again. */
function LeftOutFoot({ without, onTakeIn }: { without: readonly string[]; onTakeIn: (key: string) => void }) {
  const tests = useQuery({ queryKey: ['tests'], queryFn: () => value(api.GET('/api/tests')), staleTime: 60_000 });
  const rows = (tests.data ?? []).flatMap((t) => t.metrics.map((metric) => ({ metric })));
  return (
    <p role="note" className="small">
      Left out here:{' '}
      {without.map((key) => (
        <span key={key} className="mr-2">
          {partWords(key, rows)}{' '}
          <button className="link" onClick={() => onTakeIn(key)} aria-label={`include again: ${partWords(key, rows)}`}>
            include again
          </button>
        </span>
      ))}
    </p>
  );
}
