import { useMutation } from '@tanstack/react-query';
import { Link } from '@tanstack/react-router';
import { useEffect, useRef, useState } from 'react';
import { api, Problem, sendFile, value } from '../../api/client.ts';
import { count, DEVICE_CLASSES, deviceClass } from '../../format/format.ts';
import { takeDropped, useDropped } from '../../shell/dropped-file.ts';
import { Opening } from '../../shell/Opening.tsx';
import { Choice } from '../../ui/Choice.tsx';
import type { Answer, Layout } from './columns.ts';
import { ChooseFile } from './ChooseFile.tsx';
import { LedgerRows } from './LedgerRows.tsx';
import { progressInWords } from './progress.ts';
import { PastImports } from './PastImports.tsx';
import { ResultPart } from './ResultPart.tsx';
import { SheetGrid } from './SheetGrid.tsx';
import { useImport } from './use-import.ts';

/** A spreadsheet comes in: what it is read as is drawn over it, and what would be made of it stands beside. */
export function SpreadsheetView() {
  const [file, setFile] = useState<File | null>(null);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const job = useImport();
  const read = useMutation({
    mutationFn: (from: File) =>
      sendFile<Answer>(
        `/api/tables?name=${encodeURIComponent(from.name)}&written=${new Date(from.lastModified).toISOString().slice(0, 10)}`,
        from,
      ),
    onSuccess: setAnswer,
  });
  // A second change before the first one's answer is made to the layout that is seen, and only the last answer counts.
  const asked = useRef(0);
  const again = useMutation({
    mutationFn: ({ sheet, layout }: { sheet: number; layout?: Layout; n: number }) =>
      value(
        api.POST('/api/tables/{id}', {
          params: { path: { id: answer!.id } },
          body: { sheet, ...(layout && { layout }) },
        }),
      ),
    onSuccess: (next, { n }) => {
      if (n === asked.current) setAnswer(next);
    },
  });
  const store = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/tables/{id}/import', {
          params: { path: { id: answer!.id } },
          body: { sheet: answer!.sheet, layout: answer!.layout },
        }),
      ),
    onSuccess: (state) => job.follow({ id: state.id, store: true }),
  });
  const choose = (from: File) => {
    setFile(from);
    setAnswer(null);
    asked.current++;
    job.follow(null);
    read.mutate(from);
  };
  const waiting = useDropped();
  useEffect(() => {
    const dropped = takeDropped();
    if (dropped) choose(dropped);
    // A file that was dropped on another view is taken once.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [waiting]);
  const change = (layout: Layout) => {
    // One without columns asks for a new proposal: there is nothing of it to show yet.
    if (layout.columns.length > 0) setAnswer({ ...answer!, layout });
    again.mutate({ sheet: answer!.sheet, layout, n: ++asked.current });
  };
  const isLedgers = read.error instanceof Problem && read.error.code === 'ledgers-own-form';
  const problem =
    (isLedgers ? undefined : read.error?.message) ?? again.error?.message ?? store.error?.message ?? job.problem;
  const made = answer?.outcome;
  const canStore = made && made.refusedTotal === 0 && made.readings + made.withoutValue > 0;
  return (
    <>
      <Opening
        title={file?.name ?? 'Import'}
        sentence={
          answer ? (
            <Sentence
              answer={answer}
              onChange={change}
              onSheet={(sheet) => again.mutate({ sheet, n: ++asked.current })}
            />
          ) : (
            'A spreadsheet, a CSV or cells that you copied: what is in it is proposed, and nothing is stored until you say so.'
          )
        }
      >
        {(answer || isLedgers) && <ChooseFile small onChoose={choose} />}
      </Opening>
      {read.isPending && (
        <p role="status" className="text-ink-2">
          Reading {file?.name}.
        </p>
      )}
      {problem && (
        <p role="alert" className="my-2 border-l-2 border-plum pl-3 text-plum">
          {problem}
        </p>
      )}
      {isLedgers && file && <LedgerRows key={`${file.name}${file.lastModified}`} file={file} />}
      {!answer && !read.isPending && !isLedgers && (
        <>
          <ChooseFile onChoose={choose} />
          <PastImports />
        </>
      )}
      {job.stored ? (
        <>
          <p role="status" className="my-4 border-l-2 border-leaf pl-3">
            Stored: {count(job.stored.readings)} scores and {count(job.stored.withoutValue)} states in{' '}
            {job.stored.newSessions} sessions.{' '}
            <Link to="/standings" className="link">
              See where they stand
            </Link>
            , or look at them in the{' '}
            <Link to="/ledger" className="link">
              ledger
            </Link>
            .
          </p>
          {job.stored.importId !== undefined && <PastImports only={job.stored.importId} />}
        </>
      ) : (
        answer && (
          <div
            aria-busy={again.isPending}
            className={`grid gap-6 lg:grid-cols-[minmax(0,1fr)_296px] ${again.isPending ? 'opacity-70' : ''}`}
          >
            <SheetGrid answer={answer} onChange={change} />
            <div>
              <ResultPart answer={answer} onChange={change} />
              {job.isUnderWay ? (
                <p role="status" className="mt-3">
                  {progressInWords(job.state, answer.name, true)}{' '}
                  {job.cancel && (
                    <button className="link" onClick={job.cancel}>
                      Cancel
                    </button>
                  )}
                </p>
              ) : (
                <p className="mt-4">
                  <button
                    className="button button-main"
                    disabled={!canStore || again.isPending || store.isPending}
                    onClick={() => store.mutate()}
                  >
                    Import all
                  </button>
                  {made && !canStore && made.refusedTotal === 0 && (
                    <span className="small ml-3">Everything in it is there already.</span>
                  )}
                </p>
              )}
            </div>
          </div>
        )
      )}
    </>
  );
}

/** What the sheet is read as; each part of it can be chosen anew. */
function Sentence({
  answer,
  onChange,
  onSheet,
}: {
  answer: Answer;
  onChange: (layout: Layout) => void;
  onSheet: (sheet: number) => void;
}) {
  const { layout } = answer;
  const hasDates = layout.columns.some((c) => c.role === 'DATE');
  return (
    <>
      Read{' '}
      {answer.sheets.length > 1 && (
        <>
          sheet{' '}
          <Choice
            name="Sheet"
            value={answer.sheet}
            options={answer.sheets.map((s, i) => ({ value: i, label: s.name, detail: `${s.rows} rows` }))}
            onChoose={onSheet}
          >
            {answer.sheets[answer.sheet]!.name}
          </Choice>{' '}
        </>
      )}
      as{' '}
      <Choice
        name="Devices stand"
        value={layout.across}
        options={[
          { value: false, label: 'one device a row' },
          { value: true, label: 'one device a column' },
        ]}
        onChoose={(across) => across !== layout.across && onChange(turned(answer, across))}
      >
        {layout.across ? 'one device a column' : 'one device a row'}
      </Choice>
      , new models as{' '}
      <Choice
        name="Class of new models"
        value={layout.deviceClass}
        options={DEVICE_CLASSES.map((c) => ({ value: c.toLowerCase(), label: `a ${deviceClass(c)}` }))}
        onChoose={(of) => onChange({ ...layout, ...(of && { deviceClass: of }) })}
      >
        {layout.deviceClass ? `a ${layout.deviceClass}` : 'not known yet'}
      </Choice>
      , tests of{' '}
      <input
        key={layout.suite}
        className="field inline-block w-44 text-[15px]"
        aria-label="Suite"
        defaultValue={layout.suite}
        maxLength={120}
        onBlur={(e) => e.target.value.trim() !== layout.suite && onChange({ ...layout, suite: e.target.value.trim() })}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
      />
      {!hasDates && (
        <>
          , measured on{' '}
          <input
            type="date"
            key={layout.date}
            className="field inline-block w-40 text-[15px]"
            aria-label="Day it was measured"
            defaultValue={layout.date}
            onBlur={(e) =>
              e.target.value && e.target.value !== layout.date && onChange({ ...layout, date: e.target.value })
            }
          />
        </>
      )}
      : {answer.devices} {answer.devices === 1 ? 'device' : 'devices'}, {answer.tests}{' '}
      {answer.tests === 1 ? 'test' : 'tests'}, {count(answer.scores)} scores, {answer.states} without a value
      {answer.unread > 0 && `, ${answer.unread} cells not read`}. <span className="small">Nothing is stored yet.</span>
    </>
  );
}

/** Turned, nothing is known of its columns: a layout without any is proposed anew by the server. */
function turned(answer: Answer, across: boolean): Layout {
  return { ...answer.layout, across, columns: [], headerFrom: 0, headerTo: 0, lastRow: 0, skipped: [] };
}
