import { Popover } from 'radix-ui';
import { useId, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { leaveFocusWhereTaken } from './focused-before.ts';

export interface Option<T> {
  value: T;
  label: string;
  /** A second, quieter line. */
  detail?: string;
}

interface Shared<T> {
  /** What is being chosen, for those who do not see the sentence. */
  name: string;
  options: readonly Option<T>[];
  /** What the sentence says now. */
  children: string;
}

/** From this many options on, typing narrows the list. */
const MANY = 9;
const SHOWN = 600;

/** A part of the sentence that can be chosen anew: one of a list. */
export function Choice<T>(props: Shared<T> & { value: T; onChoose: (value: T) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <List
      {...props}
      open={open}
      setOpen={setOpen}
      isChosen={(v) => v === props.value}
      multiple={false}
      onPick={(v) => {
        props.onChoose(v);
        setOpen(false);
      }}
    />
  );
}

/** The same with any number of the list; none stands for all. */
export function Choices<T>(props: Shared<T> & { values: readonly T[]; onChoose: (values: T[]) => void }) {
  const [open, setOpen] = useState(false);
  const toggle = (v: T) =>
    props.onChoose(props.values.includes(v) ? props.values.filter((x) => x !== v) : [...props.values, v]);
  return (
    <List
      {...props}
      open={open}
      setOpen={setOpen}
      isChosen={(v) => props.values.includes(v)}
      multiple
      onPick={toggle}
    />
  );
}

interface ListProps<T> extends Shared<T> {
  open: boolean;
  setOpen: (open: boolean) => void;
  isChosen: (value: T) => boolean;
  onPick: (value: T) => void;
  multiple: boolean;
}

function List<T>({ name, options, children, open, setOpen, isChosen, onPick, multiple }: ListProps<T>) {
  const id = useId();
  const [words, setWords] = useState('');
  const [active, setActive] = useState(0);
  const list = useRef<HTMLDivElement>(null);
  const found = useMemo(() => {
    const wanted = words.trim().toLowerCase();
    return options.filter((o) => `${o.label} ${o.detail ?? ''}`.toLowerCase().includes(wanted));
  }, [options, words]);
  const shown = useMemo(() => found.slice(0, SHOWN), [found]);

  function keys(event: KeyboardEvent) {
    const move = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (move) {
      const next = Math.min(shown.length - 1, Math.max(0, active + move));
      setActive(next);
      list.current?.children[next]?.scrollIntoView({ block: 'nearest' });
    } else if (event.key === 'Enter' || (event.key === ' ' && options.length < MANY)) {
      const option = shown[active];
      if (option) onPick(option.value);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }

  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setWords('');
        setActive(
          Math.max(
            0,
            options.findIndex((o) => isChosen(o.value)),
          ),
        );
        setOpen(next);
      }}
    >
      <Popover.Trigger className="choice" aria-label={`${name}: ${children}`}>
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          onCloseAutoFocus={leaveFocusWhereTaken}
          className="menu"
          align="start"
          sideOffset={6}
          onKeyDown={keys}
          aria-label={name}
        >
          {options.length >= MANY && (
            <input
              className="field mb-1"
              placeholder="Type to narrow"
              aria-label={`Narrow: ${name}`}
              value={words}
              role="combobox"
              aria-expanded="true"
              aria-controls={id}
              aria-activedescendant={`${id}-${active}`}
              autoFocus
              onChange={(event) => {
                setWords(event.target.value);
                setActive(0);
              }}
            />
          )}
          <div
            ref={list}
            id={id}
            role="listbox"
            aria-label={name}
            aria-multiselectable={multiple}
            tabIndex={options.length >= MANY ? -1 : 0}
            aria-activedescendant={`${id}-${active}`}
            className="max-h-[340px] overflow-y-auto outline-none"
          >
            {shown.map((option, i) => (
              <div
                key={i}
                id={`${id}-${i}`}
                role="option"
                aria-selected={isChosen(option.value)}
                data-highlighted={i === active ? '' : undefined}
                className="menu-item"
                onPointerMove={() => setActive(i)}
                onClick={() => onPick(option.value)}
              >
                <span aria-hidden="true" className="w-4 text-leaf">
                  {isChosen(option.value) ? '✓' : ''}
                </span>
                <span>
                  {option.label}
                  {option.detail && <span className="small block">{option.detail}</span>}
                </span>
              </div>
            ))}
            {found.length > shown.length && (
              <p className="small px-3 py-2">{found.length - shown.length} more; further words narrow it down.</p>
            )}
            {shown.length === 0 && <p className="small px-3 py-2">Nothing has these words.</p>}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
