import type { Schemas } from '../api/client.ts';
import type { TestGroup } from '../format/format.ts';

type Command = Schemas['TimedCommand'];
type Step = Schemas['Step'];
export type Cache = Command['cache'];
export type OutputKind = NonNullable<Command['output']>['kind'];

/** A step as it is typed: one argument a line, or a script. */
export interface TypedStep {
  text: string;
  shell: boolean;
}

/** A command as it is typed. */
export interface TypedCommand {
  name: string;
  group: TestGroup;
  run: TypedStep;
  prepare: TypedStep;
  cleanUp: TypedStep;
  version: TypedStep;
  folder: string;
  /** One NAME=value a line. */
  environment: string;
  expectedExit: string;
  limitSeconds: string;
  cache: Cache;
  marks: boolean;
  from: string;
  to: string;
  printed: boolean;
  kind: OutputKind;
  expression: string;
  unit: string;
  more: boolean;
}

const step = (shell = false): TypedStep => ({ text: '', shell });

export const newCommand = (): TypedCommand => ({
  name: '',
  group: 'EVERYDAY',
  run: step(),
  prepare: step(true),
  cleanUp: step(true),
  version: step(),
  folder: '',
  environment: '',
  expectedExit: '0',
  limitSeconds: '300',
  cache: 'WARM',
  marks: false,
  from: '',
  to: '',
  printed: false,
  kind: 'LINE',
  expression: '',
  unit: 'MB/s',
  more: true,
});

const typedStep = (of: Step | undefined, shell: boolean): TypedStep =>
  of ? { text: of.arguments.join('\n'), shell: of.shell } : step(shell);

/** An example or a command that is there, to be changed. */
export function typedOf(name: string, group: TestGroup, c: Command): TypedCommand {
  const empty = newCommand();
  return {
    name,
    group,
    run: typedStep(c.run, false),
    prepare: typedStep(c.prepare, true),
    cleanUp: typedStep(c.cleanUp, true),
    version: typedStep(c.version, false),
    folder: c.folder ?? '',
    environment: Object.entries(c.environment ?? {})
      .map(([k, v]) => `${k}=${v}`)
      .join('\n'),
    expectedExit: String(c.expectedExit),
    limitSeconds: String(c.limitSeconds),
    cache: c.cache,
    marks: c.between !== undefined,
    from: c.between?.from ?? '',
    to: c.between?.to ?? '',
    printed: c.output !== undefined,
    kind: c.output?.kind ?? empty.kind,
    expression: c.output?.expression ?? '',
    unit: c.output?.unit ?? empty.unit,
    more: c.output ? c.output.direction === 'MORE_IS_BETTER' : empty.more,
  };
}

function stepOf(typed: TypedStep): Step | undefined {
  if (typed.text.trim() === '') return undefined;
  // An argument may begin or end with blanks; empty lines at the end are how people type.
  return typed.shell
    ? { arguments: [typed.text], shell: true }
    : { arguments: typed.text.replace(/\n+$/, '').split('\n'), shell: false };
}

/** @throws Error with words where something typed cannot be meant */
export function commandOf(t: TypedCommand): Command {
  const run = stepOf(t.run);
  if (!run) throw new Error(`${t.name || 'A command'}: say what is to be timed.`);
  const environment: Record<string, string> = {};
  for (const line of t.environment.split('\n').filter((l) => l.trim() !== '')) {
    const at = line.indexOf('=');
    if (at < 1) throw new Error(`${t.name || 'A command'}: “${line}” is no NAME=value.`);
    environment[line.slice(0, at).trim()] = line.slice(at + 1);
  }
  const number = (text: string, what: string) => {
    if (!/^\d+$/.test(text.trim())) throw new Error(`${t.name || 'A command'}: ${what} is a whole number.`);
    return Number(text);
  };
  const [prepare, cleanUp, version] = [stepOf(t.prepare), stepOf(t.cleanUp), stepOf(t.version)];
  return {
    run,
    ...(prepare && { prepare }),
    ...(cleanUp && { cleanUp }),
    ...(version && { version }),
    ...(t.folder.trim() !== '' && { folder: t.folder.trim() }),
    ...(Object.keys(environment).length > 0 && { environment }),
    expectedExit: number(t.expectedExit, 'the exit code'),
    limitSeconds: number(t.limitSeconds, 'the time limit'),
    cache: t.cache,
    ...(t.marks && { between: { from: t.from, to: t.to } }),
    ...(t.printed && {
      output: {
        kind: t.kind,
        expression: t.expression,
        unit: t.unit,
        direction: t.more ? ('MORE_IS_BETTER' as const) : ('LESS_IS_BETTER' as const),
      },
    }),
  };
}

/** A step in one line. */
export const stepWords = (s: Step): string =>
  s.shell ? s.arguments[0]! : s.arguments.map((a) => (/^[\w./:=+,%@^-]+$/.test(a) ? a : `'${a}'`)).join(' ');
