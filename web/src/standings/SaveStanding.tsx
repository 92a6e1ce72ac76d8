import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { CopyButton } from '../ui/CopyButton.tsx';
import { DraftNote, useDraft } from '../unsent/draft.tsx';
import type { Ask } from './question/ask.ts';
import { leaveFocusWhereTaken } from '../ui/focused-before.ts';
import { Failed } from '../ui/states.tsx';

/** Keeps the standing as a page of its own, with a title and what the reviewer says of it. */
export function SaveStanding({ ask, scope, caption }: { ask: Ask; scope: string; caption: () => string }) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const draft = useDraft('saved standing', { title: '', words: '' });
  const [living, setLiving] = useState(false);
  const [listed, setListed] = useState(false);
  const [title, setTitle] = draft.field('title');
  const [words, setWords] = draft.field('words');
  const keep = useMutation({
    mutationFn: () =>
      value(
        api.POST('/api/kept-standings', {
          params: { query: ask },
          body: {
            caption: caption(),
            title: title.trim() || undefined,
            words: words.trim() || undefined,
            living,
            listed,
          },
        }),
      ),
    onSuccess: () => {
      draft.startAnew();
      void queries.invalidateQueries({ queryKey: ['kept'] });
    },
  });
  const kept = keep.data && `${window.location.origin}/w/standings/${keep.data.key}`;
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        if (next) keep.reset();
      }}
    >
      <Popover.Trigger data-changes className="button" title="As a page for readers without a sign-in">
        Save
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          onCloseAutoFocus={leaveFocusWhereTaken}
          className="menu w-96 max-w-[94vw] p-4"
          align="end"
          sideOffset={6}
          aria-label="Save the standing"
        >
          {kept ? (
            <p role="status" className="flex flex-wrap items-baseline gap-3">
              <a className="link" href={kept}>
                Saved as a page
              </a>
              <CopyButton text={kept} what="the address of the saved standing" />
            </p>
          ) : (
            <form
              onSubmit={(e) => {
                e.preventDefault();
                keep.mutate();
              }}
            >
              <DraftNote draft={draft} />
              <label className="block">
                <span className="small">Title</span>
                <input
                  className="field"
                  maxLength={120}
                  placeholder={`Standings, ${scope}`}
                  value={title}
                  onChange={(e) => setTitle(e.target.value)}
                />
              </label>
              <label className="mt-2 block">
                <span className="small">What you say of it, if anything</span>
                <textarea
                  className="field"
                  rows={4}
                  maxLength={4000}
                  value={words}
                  onChange={(e) => setWords(e.target.value)}
                />
              </label>
              <fieldset className="mt-2">
                <legend className="sr-only">What it shows</legend>
                <label className="block">
                  <input type="radio" name="living" checked={!living} onChange={() => setLiving(false)} /> as it is now,
                  for good
                </label>
                <label className="block">
                  <input type="radio" name="living" checked={living} onChange={() => setLiving(true)} /> always with the
                  newest numbers
                </label>
              </fieldset>
              <label className="mt-2 block">
                <input type="checkbox" checked={listed} onChange={(e) => setListed(e.target.checked)} /> List it on the
                lab’s public page
              </label>
              <Failed of={keep} className="mt-1" />
              <button className="button button-main mt-3" disabled={keep.isPending}>
                Save
              </button>
              <p className="small mt-2">Readers need its address, and no sign-in.</p>
            </form>
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
