import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { getRouteApi, Link } from '@tanstack/react-router';
import { useEffect, useRef, useState, useSyncExternalStore, type KeyboardEvent } from 'react';
import { useReader } from '../access/access-context.ts';
import { api, value } from '../api/client.ts';
import { changed } from '../api/made-from.ts';
import { LateRunsOf } from '../bench/LateRuns.tsx';
import { Opening } from '../shell/Opening.tsx';
import { Loading, Ready, Failed } from '../ui/states.tsx';
import { BeforeEnd, type Left } from './BeforeEnd.tsx';
import { isTime, typed as timed } from './stopwatch.ts';
import { ComputedRows } from './ComputedRows.tsx';
import { BesideSheet } from './BesideSheet.tsx';
import type { Typed, TypedScores } from './typed.ts';
import { useTyped } from './useTyped.ts';
import { isEmpty, moved, next, startsScore, type Place, type Sheet } from './places.ts';
import { howTyped, Score } from './ScoreCell.tsx';
import { NotStored } from './NotStored.tsx';
import { SessionSentence } from './SessionSentence.tsx';

const route = getRouteApi('/bench/sheet/$sessionId');

/** The scores of one session, typed as fast as on paper: digits, Enter, digits, Enter. */
export function SheetView() {
  const id = Number(route.useParams().sessionId);
  const sheet = useQuery({
    queryKey: ['sheet', id],
    queryFn: () => value(api.GET('/api/sessions/{id}/sheet', { params: { path: { id } } })),
    refetchInterval: 15_000,
  });
  const typed = useTyped(id);
  return (
    <Ready query={sheet} what="the session">
      {(data) =>
        typed ? <Scores key={id} sheet={data} typed={typed} /> : <Loading what="what is typed on this computer" />
      }
    </Ready>
  );
}

function Scores({ sheet, typed }: { sheet: Sheet; typed: TypedScores }) {
  const { session } = sheet;
  const tests = sheet.tests.filter((t) => !t.computed);
  const id = session.id;
  const queries = useQueryClient();
  const box = useRef<HTMLDivElement>(null);
  const kept = useSyncExternalStore(typed.subscribe, typed.snapshot);
  const placeOf = (t: Typed): Place => ({ row: tests.findIndex((test) => test.testId === t.testId), run: t.run - 1 });
  const keptAt = (place: Place) => kept.find((t) => t.testId === tests[place.row]?.testId && t.run === place.run + 1);
  /** What a reload found in the field. */
  const [open] = useState(() => kept.find((t) => t.state === 'typing' && placeOf(t).row >= 0));
  const [active, setActive] = useState<Place>(() =>
    open
      ? placeOf(open)
      : tests[0] && isEmpty(tests[0].runs[0]!)
        ? { row: 0, run: 0 }
        : next(tests, { row: 0, run: 0 }),
  );
  /** What is being typed, or null while the place is only chosen. */
  const [text, setText] = useState<string | null>(open?.text ?? null);
  const [left, setLeft] = useState<Left | null>(null);
  const [ending, setEnding] = useState(false);
  const show = (page: Sheet) => {
    queries.setQueryData(['sheet', id], page);
    void changed(queries, 'scores');
  };
  const undo = useMutation({
    scope: { id: `sheet-${id}` },
    mutationFn: (place: Place) =>
      value(
        api.POST('/api/sessions/{id}/undo', {
          params: { path: { id } },
          body: { testId: tests[place.row]!.testId, run: place.run + 1 },
        }),
      ),
    onSuccess: show,
  });
  const state = useMutation({
    mutationFn: (how: 'end' | 'resume') =>
      value(
        how === 'end'
          ? api.POST('/api/sessions/{id}/end', { params: { path: { id } } })
          : api.POST('/api/sessions/{id}/resume', { params: { path: { id } } }),
      ),
    onSuccess: (page, how) => {
      show(page);
      // What is typed next belongs into the sheet, not to the button that was pressed.
      if (how === 'resume') {
        typed.again();
        requestAnimationFrame(() => box.current?.focus());
      }
    },
  });
  /** When the stopwatch was started, on the page's own clock. */
  const reader = useReader();
  const [since, setSince] = useState<number | null>(null);
  const over = session.state !== 'OPEN' || reader;
  useEffect(() => {
    if (text === null) box.current?.focus({ preventScroll: true });
  }, [text, active]);
  useEffect(() => {
    document.querySelector('[data-place="active"]')?.scrollIntoView({ block: 'nearest' });
  }, [active]);

  const test = tests[active.row];

  function write(words: string) {
    setText(words);
    if (test) typed.typing(test.testId, active.run + 1, words);
  }
  function store(then: Place) {
    if (text !== null && text.trim() !== '' && test) typed.enter(test.testId, active.run + 1, text);
    setText(null);
    setActive(then);
  }
  /** A place whose score is on its way counts as filled. */
  function filled() {
    return tests.map((t, row) => ({
      runs: t.runs.map((r, run) => {
        const there = keptAt({ row, run });
        return there && there.state !== 'refused' ? { state: 'OK' as const, aside: false } : r;
      }),
    }));
  }
  function stop(now: number, goOn: boolean) {
    if (since === null || !test) return;
    typed.enter(test.testId, active.run + 1, timed(now - since), true);
    setSince(goOn ? now : null);
    setActive(next(filled(), active));
  }
  const nameOf = (t: Typed) => `${tests.find((one) => one.testId === t.testId)?.name ?? 'a test'}, run ${t.run}`;
  async function finish() {
    store(active);
    setEnding(true);
    const { waiting, refused } = await typed.settle();
    setEnding(false);
    const now = queries.getQueryData<Sheet>(['sheet', id]) ?? sheet;
    const empty = now.tests
      .filter((t) => !t.computed)
      .flatMap((t) =>
        t.runs
          // What was typed there and is not stored is named by itself.
          .filter((run) => isEmpty(run) && !typed.at(t.testId, run.number))
          .map((run) => `${t.name}, run ${run.number}`),
      );
    if (waiting.length + refused.length + empty.length === 0) state.mutate('end');
    else setLeft({ waiting, refused, empty });
  }
  function keys(event: KeyboardEvent) {
    if (event.altKey || event.metaKey || over || tests.length === 0) return;
    const arrow = event.key.startsWith('Arrow');
    if (event.key === 'Enter') {
      store(next(filled(), active));
    } else if (event.key === 'Escape' && text !== null) {
      if (test) typed.drop(test.testId, active.run + 1);
      setText(null);
    } else if (arrow && (text === null || event.key === 'ArrowUp' || event.key === 'ArrowDown'))
      store(moved(tests, active, event.key));
    else if (text === null && event.key === ' ' && test && isTime(test.metric.unit)) {
      if (event.repeat) return;
      if (since === null) setSince(event.timeStamp);
      else stop(event.timeStamp, false);
    } else if (text === null && event.key === 'l' && since !== null) stop(event.timeStamp, true);
    else if (text === null && event.ctrlKey && event.key === 'z') undo.mutate(active);
    else if (text === null && !event.ctrlKey && startsScore(event.key, test?.metric.kind)) write(event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  const groups = [...new Set(tests.map((t) => `${t.suite} ${t.version}`))];

  return (
    <>
      <Opening title={`Scores of ${session.planName}`} sentence={<SessionSentence session={session} />}>
        <Link to="/ledger" search={{ session: id }} className="button">
          Its readings
        </Link>
        {/* Two buttons, not one that changes: the focus does not stay on what means the opposite now. */}
        {over ? (
          <button data-changes key="resume" className="button button-main" onClick={() => state.mutate('resume')}>
            Go on with it
          </button>
        ) : (
          <button
            data-changes
            key="finish"
            className="button"
            disabled={ending || state.isPending}
            onClick={() => void finish()}
          >
            {ending ? 'Sending the last scores' : 'Finish'}
          </button>
        )}
      </Opening>
      {session.remarks && <p className="small mb-2">{session.remarks}</p>}
      <LateRunsOf session={id} />
      {session.state !== 'OPEN' && (
        <p role="status" className="mb-2 border-l-2 border-gold pl-3">
          This session is finished. Its scores stay; go on with it to type more.
        </p>
      )}
      {left && (
        <BeforeEnd
          left={left}
          nameOf={nameOf}
          onFinish={() => {
            setLeft(null);
            state.mutate('end');
          }}
          onAgain={() => {
            setLeft(null);
            void finish();
          }}
          onBack={() => {
            setLeft(null);
            requestAnimationFrame(() => box.current?.focus());
          }}
        />
      )}
      {typed.trouble && (
        <p role="status" className="mb-2 border-l-2 border-gold pl-3">
          {kept.length} {kept.length === 1 ? 'score waits' : 'scores wait'} on this computer: {typed.trouble}{' '}
          {kept.length === 1 ? 'It is' : 'They are'} sent as soon as that is possible.
        </p>
      )}
      <Failed of={state} />
      <div className="grid gap-x-10 lg:grid-cols-[1fr_300px]">
        <div
          ref={box}
          tabIndex={0}
          role="group"
          aria-label="Scores. Type a number, Enter goes on, arrows move"
          className="min-w-0 outline-none"
          onKeyDown={keys}
        >
          {groups.map((name) => (
            <section key={name} className="mb-5">
              <h2 className="border-b border-hair pb-0.5">{name}</h2>
              {tests.map(
                (t, row) =>
                  `${t.suite} ${t.version}` === name && (
                    <div
                      key={t.testId}
                      className={`flex flex-wrap items-baseline gap-x-4 border-b border-hair-2 py-2 ${row === active.row && !over ? 'bg-sheet' : ''}`}
                    >
                      <span className="w-60 shrink-0 pl-1">
                        <span className="font-semibold">{t.name}</span>
                        <span className="small block">{howTyped(t)}</span>
                      </span>
                      {t.runs.map((run, i) => {
                        const place = { row, run: i };
                        const here = !over && row === active.row && i === active.run;
                        return here && text !== null ? (
                          <input
                            key={i}
                            data-place="active"
                            className="field w-36 text-[16px]"
                            autoFocus
                            aria-label={`${t.name}, run ${i + 1}`}
                            value={text}
                            maxLength={200}
                            onChange={(e) => write(e.target.value)}
                            onFocus={(e) => e.target.setSelectionRange(99, 99)}
                          />
                        ) : (
                          <Score
                            key={i}
                            test={t}
                            run={run}
                            here={here}
                            sent={keptAt(place)}
                            over={over}
                            onChoose={() => {
                              store(place);
                            }}
                            onType={() => {
                              setActive(place);
                              setText(keptAt(place)?.text ?? '');
                            }}
                          />
                        );
                      })}
                    </div>
                  ),
              )}
            </section>
          ))}
          {!left && (
            <NotStored
              refused={kept.filter((t) => t.state === 'refused')}
              nameOf={nameOf}
              onChange={(t) => {
                if (over || placeOf(t).row < 0) return undefined;
                return () => {
                  setActive(placeOf(t));
                  setText(t.text);
                };
              }}
              onDrop={(t) => typed.drop(t.testId, t.run)}
            />
          )}
          <ComputedRows tests={sheet.tests.filter((t) => t.computed)} />
          {!over && (
            <p className="small text-ink-3">
              A digit starts, <kbd>Enter</kbd> goes on, arrows move, <kbd>Ctrl</kbd> <kbd>z</kbd> undoes the selected
              score. {tests.some((t) => t.further.length > 0) && '"57.8 / 17.1" are two numbers of one run. '}"4m07",
              "1:53.6", "12.5k" and "n/a crashed on start" are understood.
            </p>
          )}
          <Failed of={undo} />
        </div>
        <aside aria-live="polite" className="lg:sticky lg:top-0 lg:self-start">
          <BesideSheet
            sessionId={id}
            tests={tests}
            {...(test && !over && { typing: { test, run: active.run + 1, text, why: keptAt(active)?.why } })}
            over={over}
            watch={{ since, onStart: setSince, onStop: stop, onReset: () => setSince(null) }}
            onPoints={(page) => {
              show(page);
              setActive(
                next(
                  page.tests.filter((t) => !t.computed),
                  active,
                ),
              );
            }}
          />
        </aside>
      </div>
    </>
  );
}
