import { useMutation } from '@tanstack/react-query';
import { api, value, type Schemas } from '../../api/client.ts';
import { DraftNote, useDraft } from '../../unsent/draft.tsx';
import { Failed } from '../../ui/states.tsx';

type ConfigurationPage = Schemas['ConfigurationPage'];

/** The past was described wrongly: a new value with the reason. What changed on the device itself is a new configuration instead. */
export function CorrectionForm({
  page,
  fact,
  onDone,
}: {
  page: ConfigurationPage;
  fact: ConfigurationPage['facts'][number];
  onDone: (page: ConfigurationPage | null) => void;
}) {
  const draft = useDraft(`correction of ${fact.key} of ${page.configuration.id}`, {
    text: fact.shown,
    reason: '',
  });
  const [text, setText] = draft.field('text');
  const [reason, setReason] = draft.field('reason');
  const save = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/configurations/{id}/corrections', {
          params: { path: { id: page.configuration.id } },
          body: { seen: page.fingerprint, key: fact.key, text, reason },
        }),
      ),
    onSuccess: (made) => {
      draft.forget();
      onDone(made);
    },
  });
  return (
    <form
      className="my-1 bg-sheet px-2 py-2"
      onKeyDown={(e) => e.key === 'Escape' && onDone(null)}
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <DraftNote draft={draft} />
      <p className="small">
        It was like this all along and written down wrongly. If the device itself changed, copy the configuration
        instead.
      </p>
      <label>
        <span className="small">It was</span>
        <input
          className="field"
          autoFocus
          required
          value={text}
          maxLength={500}
          onChange={(e) => setText(e.target.value)}
        />
      </label>
      <label className="mt-1 block">
        <span className="small">How do you know</span>
        <input
          className="field"
          required
          value={reason}
          maxLength={500}
          placeholder="read again from the label"
          onChange={(e) => setReason(e.target.value)}
        />
      </label>
      <p className="mt-2 flex gap-2">
        <button className="button button-main" disabled={save.isPending || reason.trim() === ''}>
          Correct it
        </button>
        <button type="button" className="button" onClick={() => onDone(null)}>
          Cancel
        </button>
      </p>
      <Failed of={save} />
    </form>
  );
}
