import { direction, reading, unitName } from '../format/format.ts';
import type { Typed } from './typed.ts';
import { type SheetRun, type SheetTest } from './places.ts';

/** What a row wants to be given. */
export function howTyped({ metric, name, further }: SheetTest): string {
  if (metric.kind === 'CHECK') return 'pass or fail';
  if (metric.kind === 'CHOICE') return metric.choices.join(' < ');
  const how =
    metric.kind === 'CURVE'
      ? `, a curve over ${metric.xUnit ?? 'x'}`
      : metric.kind === 'FRAME_TIMES'
        ? ', from frame times, or as numbers'
        : '';
  const others = further.map((m) => ` / ${furtherName(m.name, name)}`).join('');
  return `${unitName(metric.unit)}, ${direction(metric.direction)}${how}${others && `; then${others}`}`;
}

/** A further number without the name of its test: "1 % low". */
function furtherName(metric: string, test: string): string {
  return metric.startsWith(`${test}, `) ? metric.slice(test.length + 2) : metric;
}

/** The other numbers of a run, behind its first: " / 17.1 / –". */
function furtherWords(test: SheetTest, run: number): string {
  const own = test.further.map((m) => test.others.find((o) => o.run === run && o.metric.id === m.id));
  return own.some((o) => o !== undefined)
    ? own.map((o) => ` / ${o ? reading(o.value, { ...o.metric, unit: '1' }) : '–'}`).join('')
    : '';
}

/** What stands at a place that is not being typed at. */
export function Score({
  test,
  run,
  here,
  sent,
  over,
  onChoose,
  onType,
}: {
  test: SheetTest;
  run: SheetRun;
  here: boolean;
  sent: Typed | undefined;
  over: boolean;
  onChoose: () => void;
  onType: () => void;
}) {
  const words = sent
    ? sent.text
    : run.state === undefined || run.aside
      ? '·'
      : run.value !== undefined
        ? `${reading(run.value, test.metric, run.resolution ?? 0)}${furtherWords(test, run.number)}${run.words ? `: ${run.words}` : ''}`
        : `${run.state === 'FAILED' ? 'failed' : 'could not run'}${run.words ? `: ${run.words}` : ''}`;
  const tone =
    sent?.state === 'refused'
      ? 'text-plum border-plum'
      : sent
        ? 'text-ink-3'
        : run.state !== undefined && run.state !== 'OK'
          ? 'text-plum'
          : '';
  return (
    <button
      type="button"
      tabIndex={-1}
      disabled={over}
      data-place={here ? 'active' : undefined}
      aria-current={here ? 'true' : undefined}
      aria-label={`${test.name}, run ${run.number}: ${words === '·' ? 'nothing typed' : words}`}
      title={sent?.why}
      className={`said w-36 truncate border-b-2 px-1 text-left text-[16px] ${here ? 'border-gold bg-band' : 'border-transparent'} ${words === '·' ? 'text-ink-3' : ''} ${tone}`}
      onClick={here ? onType : onChoose}
    >
      {words}
    </button>
  );
}
