import type { Schemas } from '../api/client.ts';
import { stepWords } from './command-draft.ts';

/** What the runner carries out for a test, as whoever owns the device reads it. */
export function CommandShown({ command: c }: { command: Schemas['TimedCommand'] }) {
  const lines: [string, string][] = [['timed', stepWords(c.run)]];
  if (c.prepare) lines.unshift(['before', stepWords(c.prepare)]);
  if (c.cleanUp) lines.push(['after', stepWords(c.cleanUp)]);
  if (c.version) lines.push(['its version', stepWords(c.version)]);
  if (c.folder !== undefined) lines.push(['in folder', c.folder]);
  for (const [k, v] of Object.entries(c.environment ?? {})) lines.push(['with', `${k}=${v}`]);
  if (c.between) lines.push(['timed from', `${c.between.from} … ${c.between.to}`]);
  if (c.output) lines.push(['its score', `${c.output.expression} in ${c.output.unit}`]);
  return (
    <details className="w-full">
      <summary className="cursor-pointer">
        <code className="text-[12px] break-all text-ink-2">{stepWords(c.run)}</code>
      </summary>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3">
        {lines.map(([what, words], i) => (
          <div key={i} className="contents">
            <dt className="small">{what}</dt>
            <dd>
              <code className="text-[12px] break-all whitespace-pre-wrap text-ink-2">{words}</code>
            </dd>
          </div>
        ))}
      </dl>
      <p className="small">
        Expects exit code {c.expectedExit}; ended after {c.limitSeconds} s;{' '}
        {c.cache === 'WARM'
          ? 'once before the first run, untimed'
          : c.cache === 'COLD'
            ? 'files dropped from memory before each run'
            : 'memory as the preparation left it'}
        .
      </p>
    </details>
  );
}
