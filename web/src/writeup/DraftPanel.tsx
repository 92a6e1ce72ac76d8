import { useMutation } from '@tanstack/react-query';
import { CopyButton } from '../ui/CopyButton.tsx';
import { api, value, type Schemas } from '../api/client.ts';
import { moment } from '../format/format.ts';
import { Panel } from '../ui/Panel.tsx';
import { shownOf } from './PublishPanel.tsx';
import type { Report } from './figure/shown.ts';
import type { Writing } from './text/writing.ts';

/** A link by which somebody without a sign-in reads the draft as it is now. */
export function DraftPanel({
  page,
  reports,
  writing,
  onClose,
}: {
  page: Schemas['WriteUpPage'];
  reports: ReadonlyMap<number, Report>;
  writing: Writing;
  onClose: () => void;
}) {
  const { id } = page.writeUp;
  const show = useMutation({
    mutationFn: async () => {
      const now = await writing.stored();
      return value(
        api.POST('/api/write-ups/{id}/draft', {
          params: { path: { id } },
          body: { revision: now.data!.revision, shown: shownOf(writing, reports) },
        }),
      );
    },
    onSuccess: () => void writing.refresh(),
  });
  const hide = useMutation({
    mutationFn: () => value(api.DELETE('/api/write-ups/{id}/draft', { params: { path: { id } } })),
    onSuccess: () => {
      show.reset();
      void writing.refresh();
    },
  });
  const link = show.data && `${window.location.origin}/w/draft/${show.data.token}`;
  const error = show.error ?? hide.error;
  return (
    <Panel open onClose={onClose} title="Show a draft">
      <p className="mt-2 text-ink-2">
        Anyone with the link reads the draft as it is now, without a sign-in. A new link ends the one before, and it can
        be revoked.
      </p>
      {link && (
        <p role="status" className="mt-3">
          It is shown this once: <code className="break-all">{link}</code> <CopyButton text={link} what="the link" />
        </p>
      )}
      {page.draftAt && !link && <p className="mt-3">A link from {moment(page.draftAt)} is open.</p>}
      {error && (
        <p role="alert" className="mt-2 text-plum">
          {error.message}
        </p>
      )}
      <p className="mt-4 flex gap-2">
        <button
          className="button button-main"
          disabled={show.isPending || writing.pieces.length === 0}
          onClick={() => show.mutate()}
        >
          {page.draftAt ? 'Make a new link' : 'Make a link'}
        </button>
        {page.draftAt && (
          <button className="button" disabled={hide.isPending} onClick={() => hide.mutate()}>
            Take it back
          </button>
        )}
      </p>
    </Panel>
  );
}
