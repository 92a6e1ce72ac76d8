import { useEffect, useState } from 'react';
import { DeviceApi, type Seat } from '../seat/api.ts';
import { deliverKept } from './deliver.ts';
import { inWords } from '../seat/in-words.ts';
import type { Kept, Outbox } from '../seat/outbox.ts';

/** Finished runs that no server has taken: why, and what can be done with them. Nothing is thrown away unasked. */
export function RefusedRuns({ outbox, seat }: { outbox: Outbox; seat: Seat | null }) {
  const [runs, setRuns] = useState<Kept[]>([]);
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const [sure, setSure] = useState(false);
  useEffect(() => {
    void outbox.refused().then(setRuns);
  }, [outbox]);

  async function again() {
    setBusy(true);
    let stored = 0;
    try {
      for (const run of runs) {
        const from = run.seat ?? seat;
        if (!from) continue;
        await outbox.again(run.key);
        const one = {
          waiting: async () => (await outbox.waiting()).filter((w) => w.key === run.key),
          confirmed: outbox.confirmed,
          refuse: outbox.refuse,
        };
        const became = await deliverKept(new DeviceApi(from.token, from.shelf), one, () => Date.now());
        stored += became.stored + became.late;
      }
      setSaid(stored === runs.length ? 'The server has them all now.' : `The server took ${stored} of ${runs.length}.`);
    } catch (error) {
      setSaid(inWords(error));
    } finally {
      // Whatever was tried and not taken is no longer sent by itself.
      for (const run of await outbox.waiting())
        if (runs.some((r) => r.key === run.key))
          await outbox.refuse(run.key, runs.find((r) => r.key === run.key)!.refused ?? '');
      setRuns(await outbox.refused());
      setBusy(false);
    }
  }

  function save() {
    const file = new Blob([JSON.stringify({ runs }, null, 2)], { type: 'application/json' });
    const link = document.createElement('a');
    link.href = URL.createObjectURL(file);
    link.download = 'yarrowmark-runs.json';
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
  }

  if (runs.length === 0) return said ? <p role="status">{said}</p> : null;
  const why = [...new Set(runs.map((run) => run.refused))];
  return (
    <section aria-label="Runs that were not taken" className="mt-6 border-l-2 border-plum pl-4">
      <h2>
        {runs.length} finished {runs.length === 1 ? 'run is' : 'runs are'} still on this device
      </h2>
      {why.map((reason) => (
        <p key={reason} className="mt-1 text-ink-2">
          {reason}
        </p>
      ))}
      {said && (
        <p role="status" className="mt-1">
          {said}
        </p>
      )}
      <p className="mt-3 flex flex-wrap gap-3">
        <button className="button button-main" disabled={busy} onClick={() => void again()}>
          Deliver again
        </button>
        <button className="button" onClick={save}>
          Save as a file
        </button>
        {sure ? (
          <>
            <span>Remove them for good?</span>
            <button
              className="button"
              onClick={() =>
                void Promise.all(runs.map((run) => outbox.giveUp(run.key))).then(() => {
                  setSure(false);
                  setRuns([]);
                })
              }
            >
              Remove
            </button>
            <button className="button" onClick={() => setSure(false)}>
              Keep them
            </button>
          </>
        ) : (
          <button className="button" onClick={() => setSure(true)}>
            Remove
          </button>
        )}
      </p>
    </section>
  );
}
