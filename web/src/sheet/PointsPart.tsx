import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { reading } from '../format/format.ts';
import type { Sheet, SheetTest } from './places.ts';
import { Failed } from '../ui/states.tsx';

/** Many points for one run, pasted or out of a file: pairs of a curve, or frame times. */
export function PointsPart({
  sessionId,
  test,
  run,
  onStored,
}: {
  sessionId: number;
  test: SheetTest;
  run: number;
  onStored: (sheet: Sheet) => void;
}) {
  const [text, setText] = useState('');
  const [timestamps, setTimestamps] = useState(false);
  const frames = test.metric.kind === 'FRAME_TIMES';
  const store = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/sessions/{id}/points', {
          params: { path: { id: sessionId } },
          body: { testId: test.testId, run, text, timestamps },
        }),
      ),
    onSuccess: (sheet) => {
      setText('');
      onStored(sheet);
    },
  });
  const others = test.others.filter((o) => o.run === run);
  return (
    <section
      className="mt-6 border-l border-hair pl-4"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void e.dataTransfer.files[0]?.text().then(setText);
      }}
    >
      <label className="block">
        <span className="small">
          {frames
            ? `Frame times of run ${run} in ms, in any layout`
            : `Pairs of run ${run}, one a line: ${test.metric.xUnit ?? 'x'} and ${test.metric.unit}`}
        </span>
        <textarea
          className="field font-mono text-[12px]"
          rows={5}
          spellCheck={false}
          value={text}
          placeholder={frames ? '16.6 16.7 33.1' : '4 KiB; 128.5\n64 KiB; 930'}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      {frames && (
        <label className="flex items-baseline gap-2">
          <input
            type="checkbox"
            className="accent-leaf"
            checked={timestamps}
            onChange={(e) => setTimestamps(e.target.checked)}
          />
          these are points in time, not lengths
        </label>
      )}
      <p className="mt-1 flex items-center gap-3">
        <button
          data-changes
          type="button"
          className="button"
          disabled={text.trim() === '' || store.isPending}
          onClick={() => store.mutate()}
        >
          {store.isPending ? 'Storing' : `Store run ${run}`}
        </button>
        <label className="small link cursor-pointer focus-within:outline-2 focus-within:outline-gold">
          from a file
          <input
            type="file"
            accept=".csv,.txt,.log,text/*"
            className="sr-only"
            onChange={(e) => {
              void e.target.files?.[0]?.text().then(setText);
              e.target.value = '';
            }}
          />
        </label>
      </p>
      <Failed of={store} className="mt-1" />
      {others.length > 0 && (
        <ul className="mt-2">
          {others.map((o) => (
            <li key={o.metric.id} className="small">
              {o.metric.name}: {reading(o.value, o.metric)}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
