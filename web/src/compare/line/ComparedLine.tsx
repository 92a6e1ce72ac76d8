import type { Schemas } from '../../api/client.ts';
import { PublishedSign } from '../../chart/PublishedSign.tsx';
import { count, day, mark, markReason, number, reading } from '../../format/format.ts';
import { type DifferenceAxis, type RatioAxis } from '../../chart/ratio-axis.ts';
import { formatRatio } from '../../format/ratio.ts';
import { LineDetail } from './LineDetail.tsx';
import type { RowProps } from '../../ui/useRows.ts';
import type { ComparedRow } from './order.ts';
import { DifferenceMark, RatioMark } from './RatioMark.tsx';
import {
  answer,
  boundWords,
  differenceWords,
  isClear,
  sizeWords,
  tone,
  TONE_CLASS,
  whatWouldTell,
  type Cell,
  type Sizes,
} from '../../format/verdict.ts';
import { toldApart } from '../../format/named.ts';
import { sentence, type Words } from './words.ts';

interface Props {
  row: ComparedRow;
  name: string;
  /** How far it stands below a line that it is a part of. */
  depth: number;
  comparison: Schemas['Comparison'];
  words: Words;
  axis: RatioAxis;
  /** Of this metric's unit, where it has no ratio. */
  differences: DifferenceAxis | undefined;
  template: string;
  rowProps: RowProps;
  open: boolean;
  onOpen: () => void;
  side: number;
  /** Why its readings may not be sound, on any side. */
  marks: readonly string[];
  sizes: Sizes | undefined;
}

/** One test: the values of both, the ratio with its interval, and how to read it. */
export function ComparedLine({
  row,
  name,
  depth,
  comparison,
  words,
  axis,
  differences,
  template,
  rowProps,
  open,
  onOpen,
  side,
  marks,
  sizes,
}: Props) {
  const { metric, cells } = row;
  const alone = cells.length === 1;
  const materiality = 1 + comparison.materiality / 100;
  const shown = (value: number | undefined) =>
    value === undefined
      ? '–'
      : reading(value, comparison.per && metric.scale === 'RATIO' ? { kind: 'NUMBER', unit: '1' } : metric);
  const said = (i: number) => sentence(words, metric.id, i);
  return (
    <div
      data-open={open}
      className="border-b border-hair-2 bg-paper has-[[data-active-row=true]]:bg-sheet data-[open=true]:bg-sheet"
    >
      <div
        role="row"
        {...rowProps}
        className="grid bg-inherit -outline-offset-2 min-h-[33px] items-center gap-x-3 py-1"
        style={{ gridTemplateColumns: template }}
      >
        <span
          role="rowheader"
          className="sticky left-0 flex min-w-0 items-center gap-1.5 self-stretch bg-inherit"
          style={{ paddingLeft: 8 + 14 * depth }}
        >
          <button
            className="said block min-w-0 truncate text-left hover:underline"
            aria-expanded={open}
            onClick={onOpen}
            title={`${metric.name}; ${metric.suite} ${metric.version}`}
          >
            {name}
          </button>
          {marks.map((kind) => (
            <span key={kind} className="pill" data-tone="wait" title={markReason({ kind })}>
              {mark(kind)}
            </span>
          ))}
        </span>
        <span role="cell" className="text-right whitespace-nowrap">
          {row.atLeast && <span className="text-ink-3">≥ </span>}
          {shown(row.value)}
        </span>
        {alone ? (
          <>
            <span role="cell" className="text-right whitespace-nowrap">
              {shown(cells[0]!.value)}
            </span>
            <span role="cell">
              {cells[0]!.difference === undefined ? (
                <RatioMark
                  cell={cells[0]!}
                  axis={axis}
                  materiality={materiality}
                  label={said(0) ?? inNumbers(cells[0]!, metric.name, materiality)}
                />
              ) : (
                differences && (
                  <DifferenceMark
                    cell={cells[0]!}
                    axis={differences}
                    label={`${metric.name}: ${differenceWords(cells[0]!, metric)}`}
                  />
                )
              )}
            </span>
            <span role="cell">
              <InWords cell={cells[0]!} said={said(0)} row={row} materiality={materiality} sizes={sizes} />
            </span>
          </>
        ) : (
          cells.map((cell, i) => (
            <span key={i} role="cell" className="px-1 data-[on=true]:bg-leaf-soft" data-on={i === side}>
              <Short
                cell={cell}
                said={said(i)}
                row={row}
                sizes={sizes}
                value={shown(cell.value)}
                against={
                  row.against === undefined || cell.value === undefined
                    ? undefined
                    : row.against === i
                      ? 'the others are compared with this'
                      : `against ${toldApart(comparison.sides[row.against]!.configuration, [comparison.base, ...comparison.sides.map((s) => s.configuration)])}`
                }
              />
            </span>
          ))
        )}
      </div>
      <PublishedLines row={row} comparison={comparison} />
      {open && <LineDetail row={row} comparison={comparison} words={words} />}
    </div>
  );
}

/** What others published for the models compared, each on its own line: beside what was measured, in no verdict. */
function PublishedLines({ row, comparison }: { row: ComparedRow; comparison: Schemas['Comparison'] }) {
  const found = comparison.per ? [] : comparison.published.filter((p) => p.metricId === row.metric.id);
  const all = [comparison.base, ...comparison.sides.map((s) => s.configuration)];
  return found.map((p, i) => {
    const model = all.find((c) => c.modelId === p.modelId);
    return (
      <div key={i} role="row">
        <p role="cell" className="flex flex-wrap items-baseline gap-x-2 pb-1 pl-6 text-[12.5px] text-ink-2">
          <PublishedSign />
          <span>
            published for {model ? `${model.maker} ${model.model}` : 'it'}:{' '}
            <b className="font-semibold">{reading(p.value, row.metric)}</b>
          </span>
          <span className="text-ink-3">
            {p.source}
            {p.publishedOn && `, ${day(p.publishedOn)}`}
            {p.results !== undefined && `, from ${count(p.results)} ${p.results === 1 ? 'result' : 'results'}`}
          </span>
        </p>
      </div>
    );
  });
}

/** What a mark is called until its sentence has come. */
function inNumbers(cell: Cell, name: string, materiality: number): string {
  const ratio = cell.ratio === undefined ? '' : `, ${formatRatio(cell.ratio, materiality)}`;
  return `${name}${ratio}${cell.verdict === undefined ? '' : `, ${answer(cell)}`}`;
}

interface Said {
  cell: Cell;
  /** Its sentence. */
  said: string | undefined;
  row: ComparedRow;
  /** A ratio above 1. */
  materiality: number;
  sizes: Sizes | undefined;
}

function InWords({ cell, said, row, materiality, sizes }: Said) {
  if (boundWords(cell) !== undefined) return <Held cell={cell} said={said} />;
  if (cell.verdict === undefined) return <Difference cell={cell} metric={row.metric} />;
  const would = whatWouldTell(cell);
  return (
    <span className="block leading-tight">
      <span className={`${TONE_CLASS[tone(cell.verdict)]} ${isClear(cell.verdict) ? 'font-semibold' : ''}`}>
        {answer(cell, sizeWords(cell, row.metric, sizes))}
      </span>
      <span className="ml-1.5 text-[12.5px] whitespace-nowrap text-ink-3">{formatRatio(cell.ratio!, materiality)}</span>
      {would && <span className="block text-[12.5px] text-ink-3">{would}</span>}
      {cell.outReason !== undefined && (
        <span className="block truncate text-[12px] text-ink-3" title={`Not in the overall: ${cell.outReason}`}>
          not in the overall
        </span>
      )}
    </span>
  );
}

/** A display holds the value of one of them, or of both: the true one may be higher. */
function Held({ cell, said }: Pick<Said, 'cell' | 'said'>) {
  return (
    <span className="block leading-tight" title={said}>
      <span>{boundWords(cell)}</span>
      <span className="block text-[12.5px] text-ink-3">capped by the display, not in the overall</span>
    </span>
  );
}

function Difference({ cell, metric }: { cell: Cell; metric: ComparedRow['metric'] }) {
  const words = differenceWords(cell, metric);
  if (cell.difference === undefined || cell.reading === undefined)
    return <span className="small text-ink-3">{words}</span>;
  return (
    <span className="block leading-tight">
      <span className={TONE_CLASS[cell.reading === 'BETTER' ? 'gain' : cell.reading === 'WORSE' ? 'loss' : 'unsure']}>
        {words}
      </span>
      {cell.low !== undefined && cell.high !== undefined && (
        <span className="block text-[12px] text-ink-3">
          95 % interval {number(cell.low, 3)} to {number(cell.high, 3)}
        </span>
      )}
    </span>
  );
}

/** In a column among several: its own value, and how it differs. */
function Short({
  cell,
  said,
  row,
  sizes,
  value,
  against,
}: Omit<Said, 'materiality'> & { value: string; against: string | undefined }) {
  const own = cell.value !== undefined && (
    <span className={`block whitespace-nowrap ${cell.outReason === undefined ? '' : 'text-ink-3'}`}>{value}</span>
  );
  if (boundWords(cell) !== undefined)
    return (
      <>
        {own}
        <Held cell={cell} said={said} />
      </>
    );
  if (cell.verdict === undefined)
    return (
      <>
        {own}
        {against === undefined || cell.difference !== undefined ? (
          <Difference cell={cell} metric={row.metric} />
        ) : (
          <span className="small text-ink-3">{against}</span>
        )}
      </>
    );
  return (
    <span className="block leading-tight" title={said}>
      {own}
      <span
        className={`block text-[12.5px] ${TONE_CLASS[tone(cell.verdict)]} ${isClear(cell.verdict) ? 'font-semibold' : ''}`}
      >
        {answer(cell, sizeWords(cell, row.metric, sizes))}
      </span>
      {against !== undefined && <span className="block text-[12px] text-ink-3">{against}</span>}
    </span>
  );
}
