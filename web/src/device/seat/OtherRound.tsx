import { useState } from 'react';
import type { DeviceSeat } from './api.ts';
import { inWords } from './in-words.ts';

interface OtherRoundProps {
  seat: DeviceSeat;
  code: string;
  /** Finished runs that no server has yet. */
  kept: number;
  onGoOn: () => void;
  onLeave: () => Promise<void>;
}

/** A device that is in the middle of one round was opened with the code of another: its holder says which. */
export function OtherRound({ seat, code, kept, onGoOn, onLeave }: OtherRoundProps) {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  return (
    <section className="py-8" aria-labelledby="other-round">
      <h1 id="other-round">This device is in another round</h1>
      <p className="mt-2 text-[16px]">
        It joined the bench for <b className="font-semibold">{seat.planName}</b>, which is not finished. The code {code}{' '}
        is for a new round.
      </p>
      <button
        type="button"
        className="button button-main mt-6 w-full py-3 text-[16px]"
        disabled={busy}
        onClick={onGoOn}
      >
        Go on with {seat.planName}
      </button>
      <button
        type="button"
        className="button mt-3 w-full py-3 text-[16px]"
        disabled={busy}
        onClick={() => {
          setBusy(true);
          setProblem(null);
          onLeave().catch((error: unknown) => {
            setProblem(inWords(error));
            setBusy(false);
          });
        }}
      >
        {busy ? 'Ending it' : `End it, and join with ${code}`}
      </button>
      <p className="small mt-2">
        Ending it keeps every finished run
        {kept > 0 && `; ${kept} ${kept === 1 ? 'is' : 'are'} sent to the bench first`}.
      </p>
      <p role="alert" className="mt-2 min-h-6 text-plum">
        {problem}
      </p>
    </section>
  );
}
