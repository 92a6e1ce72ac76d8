import { useQuery } from '@tanstack/react-query';
import { api, value } from '../../api/client.ts';
import { TEST_GROUPS, testGroup, type TestGroup } from '../../format/format.ts';
import {
  headingOf,
  letter,
  MODEL_FIELDS,
  ROLES,
  withColumns,
  type Answer,
  type Column,
  type Layout,
  type Role,
} from './columns.ts';

/** What a column is, or several at once, as a sentence whose parts are changed where they stand. */
export function ColumnForm({
  answer,
  columns,
  onChange,
}: {
  answer: Answer;
  columns: readonly number[];
  onChange: (layout: Layout) => void;
}) {
  const first = answer.layout.columns.find((c) => c.column === columns[0])!;
  const say = (change: Partial<Column>) => onChange(withColumns(answer, columns, change));
  const named = columns.length === 1 ? headingOf(answer, first.column) : `${columns.length} columns`;
  return (
    <div className="grid gap-2 p-2 text-[14px]">
      <p>
        <b className="font-semibold">{named}</b> <span className="small">{columns.map(letter).join(', ')}</span>
      </p>
      <Field label="is">
        <select
          className="field"
          value={first.role}
          onChange={(e) => {
            const role = e.target.value as Role;
            say({ role, ...(role === 'FACT' && { name: 'processor.name' }) });
          }}
        >
          {ROLES.map((r) => (
            <option key={r.role} value={r.role}>
              {r.words}
            </option>
          ))}
        </select>
      </Field>
      {first.role === 'FACT' && <FactField name={first.name} onChange={(name) => say({ name })} />}
      {first.role === 'MODEL_FIELD' && (
        <Field label="namely">
          <select className="field" value={first.name} onChange={(e) => say({ name: e.target.value })}>
            {MODEL_FIELDS.map((f) => (
              <option key={f.name} value={f.name}>
                {f.words}
              </option>
            ))}
          </select>
        </Field>
      )}
      {first.role === 'TEST' && (
        <>
          {columns.length === 1 && (
            <Field label="called">
              <Typed value={first.name} most={120} onDone={(name) => name && say({ name })} />
            </Field>
          )}
          <Field label="in">
            <Typed
              value={first.unit === '1' ? 'points' : first.unit}
              most={30}
              onDone={(unit) => say({ unit: unit === 'points' || unit === '' ? '1' : unit })}
            />
          </Field>
          <Field label="better is">
            <select
              className="field"
              value={first.direction ?? 'MORE_IS_BETTER'}
              onChange={(e) => say({ direction: e.target.value as NonNullable<Column['direction']> })}
            >
              <option value="MORE_IS_BETTER">more</option>
              <option value="LESS_IS_BETTER">less</option>
            </select>
          </Field>
          <Field label="group">
            <select className="field" value={first.group} onChange={(e) => say({ group: e.target.value })}>
              {TEST_GROUPS.map((g: TestGroup) => (
                <option key={g} value={g}>
                  {testGroup(g)}
                </option>
              ))}
            </select>
          </Field>
          {columns.length === 1 && (
            <>
              <Field label="run">
                <Typed
                  value={String(first.run)}
                  most={4}
                  onDone={(run) => /^[1-9]\d{0,2}$/.test(run) && say({ run: Number(run) })}
                />
              </Field>
              <Field label="number of it">
                <Typed value={first.metric} most={80} onDone={(metric) => say({ metric })} />
              </Field>
            </>
          )}
        </>
      )}
    </div>
  );
}

function FactField({ name, onChange }: { name: string; onChange: (key: string) => void }) {
  const vocabulary = useQuery({
    queryKey: ['vocabulary'],
    queryFn: () => value(api.GET('/api/facts/vocabulary')),
    staleTime: Infinity,
  });
  return (
    <Field label="namely">
      <select className="field" value={name} onChange={(e) => onChange(e.target.value)}>
        {(vocabulary.data ?? []).map((f) => (
          <option key={f.key} value={f.key}>
            {f.label}
          </option>
        ))}
      </select>
    </Field>
  );
}

function Field({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <label className="grid grid-cols-[86px_1fr] items-center gap-2">
      <span className="text-ink-2">{label}</span>
      {children}
    </label>
  );
}

/** Takes what was typed once it is left, or on Enter: each change is a question to the server. */
function Typed({ value: now, most, onDone }: { value: string; most: number; onDone: (value: string) => void }) {
  return (
    <input
      key={now}
      className="field"
      defaultValue={now}
      maxLength={most}
      onBlur={(e) => e.target.value.trim() !== now && onDone(e.target.value.trim())}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  );
}
