import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, value, type Schemas } from '../api/client.ts';
import { Panel } from '../ui/Panel.tsx';
import { Ready } from '../ui/states.tsx';
import { blobAddress } from '../export/save-file.ts';
import { Mark } from './figure/Mark.tsx';

const LONGEST = 20_000;
/** The server draws it anew, and smaller. */
const LARGEST_PICTURE = 1_000_000;

/** One accent, a mark, and the licence of the data: figures and pages follow. */
export function LookPanel({ onClose }: { onClose: () => void }) {
  const look = useQuery({ queryKey: ['look'], queryFn: () => value(api.GET('/api/look')) });
  return (
    <Panel open onClose={onClose} title="Branding">
      <Ready query={look} what="the look">
        {(now) => <Form now={now} onKept={onClose} />}
      </Ready>
    </Panel>
  );
}

function Form({ now, onKept }: { now: Schemas['LookNow']; onKept: () => void }) {
  const queries = useQueryClient();
  const [accent, setAccent] = useState(now.accent ?? '#2f6247');
  const [mark, setMark] = useState(now.mark ?? '');
  const [licence, setLicence] = useState(now.licence ?? '');
  const [address, setAddress] = useState(now.address ?? '');
  const [problem, setProblem] = useState<string>();
  const keep = useMutation({
    mutationFn: () =>
      value(
        api.PUT('/api/look', { body: { accent, mark, licence: licence || undefined, address: address || undefined } }),
      ),
    onSuccess: (kept) => {
      queries.setQueryData(['look'], kept);
      onKept();
    },
  });
  return (
    <form
      className="mt-3 flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        keep.mutate();
      }}
    >
      <label>
        Accent{' '}
        <input type="color" className="mx-2 align-middle" value={accent} onChange={(e) => setAccent(e.target.value)} />
        <span className="small">of links, the highlighted device and the verdict; it must be readable on paper</span>
      </label>
      <div className="flex items-center gap-3">
        <label className="button cursor-pointer focus-within:outline-2">
          Choose a mark
          <input
            type="file"
            accept="image/svg+xml,image/png"
            className="sr-only"
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (!file) return;
              const picture = file.type === 'image/png';
              const large = file.size > (picture ? LARGEST_PICTURE : LONGEST);
              setProblem(
                large
                  ? picture
                    ? 'This picture is larger than 1 MB; a mark is shown small.'
                    : 'This drawing is larger than 20 kB; a mark is a few shapes.'
                  : undefined,
              );
              if (!large) void (picture ? blobAddress(file) : file.text()).then(setMark);
            }}
          />
        </label>
        {mark && now.mark === mark && (
          <span className="h-7 w-7">
            <Mark mark={mark} />
          </span>
        )}
        {mark && (
          <button type="button" className="small link" onClick={() => setMark('')}>
            without a mark
          </button>
        )}
        <span className="small">SVG, of which only shapes are kept, or PNG</span>
      </div>
      <label>
        Licence of the data{' '}
        <input
          className="field"
          placeholder="CC BY 4.0"
          maxLength={200}
          value={licence}
          onChange={(e) => setLicence(e.target.value)}
        />
      </label>
      <label>
        Public address{' '}
        <input
          className="field"
          placeholder="https://reviews.example/w"
          maxLength={200}
          value={address}
          onChange={(e) => setAddress(e.target.value)}
        />
        <span className="small block">
          Where readers find the front page: shared links and the news feed name it. Without one it is the address that
          a page was asked at.
        </span>
      </label>
      {(problem ?? keep.error?.message) && (
        <p role="alert" className="text-plum">
          {problem ?? keep.error?.message}
        </p>
      )}
      <div>
        <button className="button button-main" disabled={keep.isPending}>
          Save
        </button>
      </div>
    </form>
  );
}
