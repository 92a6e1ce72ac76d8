import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { quantity } from '../format/format.ts';
import { Failed } from '../ui/states.tsx';

type Answer = Schemas['TextAnswer'];

/** Paste or drop what a tool printed: what its suite's rules read of it is shown first, then stored with the text. */
export function TextPart({ sessionId, onStored }: { sessionId: number; onStored: () => void }) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const ask = useMutation({
    mutationFn: ({ from, store }: { from: string; store: boolean }) =>
      value(
        api.POST('/api/sessions/{id}/text', {
          params: { path: { id: sessionId }, query: { store } },
          body: { text: from },
        }),
      ),
  });
  const look = (from: string) => {
    setText(from);
    if (from.trim() !== '') ask.mutate({ from, store: false });
  };
  const store = () =>
    ask.mutate(
      { from: text, store: true },
      {
        onSuccess: () => {
          setText('');
          setOpen(false);
          ask.reset();
          onStored();
        },
      },
    );
  if (!open)
    return (
      <p className="mt-6 border-l border-hair pl-4">
        <button data-changes type="button" className="button" onClick={() => setOpen(true)}>
          Paste what a tool printed
        </button>
      </p>
    );
  return (
    <section
      className="mt-6 border-l border-hair pl-4"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void e.dataTransfer.files[0]?.text().then(look);
      }}
    >
      <label className="block">
        <span className="small">What a tool printed; several runs may follow one another</span>
        <textarea
          className="field font-mono text-[12px]"
          rows={6}
          spellCheck={false}
          autoFocus
          value={text}
          onChange={(e) => look(e.target.value)}
        />
      </label>
      {ask.data && text.trim() !== '' && <Read answer={ask.data} />}
      <Failed of={ask} />
      <p className="mt-1 flex gap-3">
        <button
          type="button"
          className="button button-main"
          disabled={ask.isPending || !ask.data || ask.data.taken.length === 0 || text.trim() === ''}
          onClick={store}
        >
          Store {ask.data?.taken.length ?? 0} {ask.data?.taken.length === 1 ? 'score' : 'scores'}
        </button>
        <button
          type="button"
          className="button"
          onClick={() => {
            setOpen(false);
            setText('');
            ask.reset();
          }}
        >
          Cancel
        </button>
      </p>
    </section>
  );
}

function Read({ answer }: { answer: Answer }) {
  if (answer.rules === 0)
    return (
      <p className="small">
        The suites of this session have no reading rule yet. Make one on the suite’s page, from this very text.
      </p>
    );
  return (
    <ul aria-live="polite" className="mt-1">
      {answer.taken.map((t, i) => (
        <li key={i} className="border-b border-hair-2 py-0.5">
          {t.name}, run {t.run}: <b className="font-semibold">{quantity(t.value, t.unit, t.resolution)}</b>{' '}
          <span className="small text-ink-3">{t.line > 0 && `line ${t.line}`}</span>
        </li>
      ))}
      {answer.refused.map((reason, i) => (
        <li key={`r${i}`} className="py-0.5 text-plum">
          {reason}
        </li>
      ))}
      {answer.missed.map((m, i) => (
        <li key={`m${i}`} className="small py-0.5">
          {m.pattern}: {m.reason}
        </li>
      ))}
    </ul>
  );
}
