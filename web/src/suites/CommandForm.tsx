import { TEST_GROUPS, testGroup, type TestGroup } from '../format/format.ts';
import type { Cache, OutputKind, TypedCommand, TypedStep } from './command-draft.ts';

const CACHES: Record<Cache, string> = {
  WARM: 'warm: once before, untimed',
  COLD: 'cold: files dropped from memory',
  AS_IT_IS: 'as the preparation left it',
};
const KINDS: Record<OutputKind, string> = {
  LINE: 'expression on a line',
  KEY: 'what stands behind a name',
  COLUMN: 'column of a table',
  POINTER: 'JSON Pointer',
};

/** One command of a suite: what is timed, what is done around it, and what its score is. */
export function CommandForm({
  value: c,
  number,
  onChange,
  onRemove,
}: {
  value: TypedCommand;
  /** From 1. */
  number: number;
  onChange: (next: TypedCommand) => void;
  /** Absent where it is the only one. */
  onRemove?: () => void;
}) {
  const set = (change: Partial<TypedCommand>) => onChange({ ...c, ...change });
  const of = (what: string) => `${what} of command ${number}`;
  return (
    <fieldset className="mt-3 border-t border-hair pt-2">
      <legend className="sr-only">Command {number}</legend>
      <div className="grid gap-x-6 gap-y-2 sm:grid-cols-4">
        <label className="sm:col-span-2">
          <span className="small">Test</span>
          <input
            className="field"
            required
            maxLength={120}
            placeholder="Compile the survey tools"
            aria-label={of('Name')}
            value={c.name}
            onChange={(e) => set({ name: e.target.value })}
          />
        </label>
        <label>
          <span className="small">Group</span>
          <select
            className="field"
            aria-label={of('Group')}
            value={c.group}
            onChange={(e) => set({ group: e.target.value as TestGroup })}
          >
            {TEST_GROUPS.map((g) => (
              <option key={g} value={g}>
                {testGroup(g)}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="small">Begins</span>
          <select
            className="field"
            aria-label={of('Cache')}
            value={c.cache}
            onChange={(e) => set({ cache: e.target.value as Cache })}
          >
            {Object.entries(CACHES).map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <Step
          label="Timed"
          of={of('Timed')}
          value={c.run}
          onChange={(run) => set({ run })}
          placeholder={'make\n-j4'}
          required
        />
        <Step
          label="Before each run, untimed"
          of={of('Preparation')}
          value={c.prepare}
          onChange={(prepare) => set({ prepare })}
          placeholder="make clean"
        />
      </div>
      <details className="mt-2">
        <summary className="small cursor-pointer">
          Folder, environment, clean-up, limits{c.marks || c.printed ? '; and what is scored' : ''}
        </summary>
        <div className="mt-1 grid gap-x-6 gap-y-2 sm:grid-cols-4">
          <Step
            label="After each run, untimed"
            of={of('Clean-up')}
            value={c.cleanUp}
            onChange={(cleanUp) => set({ cleanUp })}
            placeholder="rm -f *.o"
          />
          <Step
            label="Prints which version of the program it is"
            of={of('Version')}
            value={c.version}
            onChange={(version) => set({ version })}
            placeholder={'make\n--version'}
          />
          <label>
            <span className="small">Folder, below the runner’s own</span>
            <input
              className="field"
              maxLength={400}
              aria-label={of('Folder')}
              value={c.folder}
              onChange={(e) => set({ folder: e.target.value })}
            />
          </label>
          <label>
            <span className="small">Environment, NAME=value a line</span>
            <textarea
              className="field font-mono"
              rows={2}
              spellCheck={false}
              aria-label={of('Environment')}
              value={c.environment}
              onChange={(e) => set({ environment: e.target.value })}
            />
          </label>
          <label>
            <span className="small">Exit code of a good run</span>
            <input
              className="field w-20"
              inputMode="numeric"
              aria-label={of('Exit code')}
              value={c.expectedExit}
              onChange={(e) => set({ expectedExit: e.target.value })}
            />
          </label>
          <label>
            <span className="small">Ended after, in s</span>
            <input
              className="field w-24"
              inputMode="numeric"
              aria-label={of('Time limit')}
              value={c.limitSeconds}
              onChange={(e) => set({ limitSeconds: e.target.value })}
            />
          </label>
        </div>
        <label className="mt-2 flex items-baseline gap-2">
          <input
            type="checkbox"
            className="accent-leaf"
            checked={c.marks}
            onChange={(e) => set({ marks: e.target.checked })}
          />
          timed between two lines that it prints, not as a whole
        </label>
        {c.marks && (
          <div className="grid gap-x-6 sm:grid-cols-2">
            <label>
              <span className="small">From the line with</span>
              <input
                className="field"
                required
                maxLength={200}
                aria-label={of('From')}
                value={c.from}
                onChange={(e) => set({ from: e.target.value })}
              />
            </label>
            <label>
              <span className="small">to the line with</span>
              <input
                className="field"
                required
                maxLength={200}
                aria-label={of('To')}
                value={c.to}
                onChange={(e) => set({ to: e.target.value })}
              />
            </label>
          </div>
        )}
        <label className="mt-1 flex items-baseline gap-2">
          <input
            type="checkbox"
            className="accent-leaf"
            checked={c.printed}
            onChange={(e) => set({ printed: e.target.checked })}
          />
          its score is a number that it prints, not its time
        </label>
        {c.printed && (
          <div className="grid gap-x-6 sm:grid-cols-4">
            <label>
              <span className="small">Found by</span>
              <select
                className="field"
                aria-label={of('Found by')}
                value={c.kind}
                onChange={(e) => set({ kind: e.target.value as OutputKind })}
              >
                {Object.entries(KINDS).map(([key, words]) => (
                  <option key={key} value={key}>
                    {words}
                  </option>
                ))}
              </select>
            </label>
            <label>
              <span className="small">which is</span>
              <input
                className="field font-mono"
                required
                maxLength={500}
                spellCheck={false}
                placeholder="wrote ([\d.]+)"
                aria-label={of('Expression')}
                value={c.expression}
                onChange={(e) => set({ expression: e.target.value })}
              />
            </label>
            <label>
              <span className="small">Unit</span>
              <input
                className="field"
                required
                maxLength={30}
                aria-label={of('Unit')}
                value={c.unit}
                onChange={(e) => set({ unit: e.target.value })}
              />
            </label>
            <label>
              <span className="small">Better is</span>
              <select
                className="field"
                aria-label={of('Better')}
                value={c.more ? 'more' : 'less'}
                onChange={(e) => set({ more: e.target.value === 'more' })}
              >
                <option value="more">more</option>
                <option value="less">less</option>
              </select>
            </label>
          </div>
        )}
      </details>
      {onRemove && (
        <p className="mt-1">
          <button type="button" className="small link" onClick={onRemove}>
            remove {c.name || `command ${number}`}
          </button>
        </p>
      )}
    </fieldset>
  );
}

function Step({
  label,
  of,
  value,
  onChange,
  placeholder,
  required = false,
}: {
  label: string;
  of: string;
  value: TypedStep;
  onChange: (next: TypedStep) => void;
  placeholder: string;
  required?: boolean;
}) {
  return (
    <div className="sm:col-span-2">
      <span className="small flex items-baseline gap-3">
        {label}
        <label className="ml-auto flex items-baseline gap-1">
          <input
            type="checkbox"
            className="accent-leaf"
            aria-label={`${of} by a shell`}
            checked={value.shell}
            onChange={(e) => onChange({ ...value, shell: e.target.checked })}
          />
          by a shell
        </label>
      </span>
      <textarea
        className="field font-mono"
        rows={3}
        required={required}
        spellCheck={false}
        maxLength={8000}
        aria-label={of}
        placeholder={value.shell ? placeholder.replace('\n', ' ') : `${placeholder}\n(one argument a line)`}
        value={value.text}
        onChange={(e) => onChange({ ...value, text: e.target.value })}
      />
    </div>
  );
}
