import type { ReactNode } from 'react';
import yarrow from '../shell/yarrow.svg';

/** The plain sheet that signing in happens on. */
export function Sheet({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="mx-auto flex min-h-dvh max-w-[420px] flex-col justify-center px-6 pb-24">
      <p className="mb-8 flex items-center gap-2 font-title text-[21px] font-semibold">
        <img src={yarrow} alt="" className="h-7 w-7" /> Yarrowmark
      </p>
      <h1>{title}</h1>
      {children}
    </main>
  );
}

/** A labelled line to write on. */
export function Line(props: {
  label: string;
  type?: string;
  name: string;
  value: string;
  onChange: (value: string) => void;
  autoComplete?: string;
  autoFocus?: boolean;
  hint?: string;
}) {
  return (
    <label className="mt-5 block">
      <span className="small">{props.label}</span>
      <input
        className="field text-[16px]"
        type={props.type ?? 'text'}
        name={props.name}
        value={props.value}
        required
        maxLength={200}
        autoComplete={props.autoComplete}
        autoFocus={props.autoFocus}
        onChange={(event) => props.onChange(event.target.value)}
      />
      {props.hint && <span className="small">{props.hint}</span>}
    </label>
  );
}
