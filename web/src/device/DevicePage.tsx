import { useEffect, useRef, useState } from 'react';
import { DeviceApi, Refused, Unreachable, type DeviceSeat, type StartBody } from './api.ts';
import { conduct, type Conductor, type Showing } from './conduct.ts';
import { detect, type Detected } from './detect.ts';
import { Join } from './Join.tsx';
import { Outbox } from './outbox.ts';
import { Running } from './Running.tsx';
import { Setup } from './Setup.tsx';

/** Where the page is. Each state has what it needs and nothing else. */
type State =
  | { at: 'opening'; message?: string }
  | { at: 'join'; message?: string }
  | { at: 'setup'; seat: DeviceSeat }
  | { at: 'running'; seat: DeviceSeat }
  | { at: 'over'; how: 'DONE' | 'STOPPED'; showing: Showing | null };

/** The page on a device under test: code, facts, round. It needs no sign-in and keeps what it measures. */
export function DevicePage() {
  const [state, setState] = useState<State>({ at: 'opening' });
  const [detected, setDetected] = useState<Detected | null>(null);
  const [showing, setShowing] = useState<Showing | null>(null);
  const outbox = useRef<Outbox | null>(null);
  const api = useRef(new DeviceApi(null));
  const host = useRef<HTMLDivElement>(null);
  const conductor = useRef<Conductor | null>(null);

  useEffect(() => {
    void (async () => {
      setDetected(await detect());
    })();
    void open();
    // Runs once: the page opens its own storage and looks whether a session was going on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);

  async function open() {
    try {
      outbox.current ??= await Outbox.open();
    } catch {
      setState({
        at: 'opening',
        message:
          'This browser gives the page no storage, so results would be lost on the way. Leave private mode, or use another browser.',
      });
      return;
    }
    const token = await outbox.current.token();
    if (!token) return setState({ at: 'join' });
    api.current = new DeviceApi(token);
    await takeUp();
  }

  /** Goes on where the seat stands; tries again by itself while the server is away. */
  async function takeUp() {
    try {
      const seat = await api.current.seat();
      if (seat.phase === 'DONE' || seat.phase === 'STOPPED' || seat.phase === 'CLEARED') {
        const waiting = await outbox.current!.waiting();
        await outbox.current!.leave();
        setState({
          at: 'join',
          message:
            waiting.length > 0
              ? `The session was ended at the bench. ${waiting.length} finished runs came too late for it.`
              : 'That session is over. A new one needs a new code.',
        });
      } else if (seat.sessionId === undefined) setState({ at: 'setup', seat });
      else setState({ at: 'running', seat });
    } catch (error) {
      if (error instanceof Refused) {
        await outbox.current!.leave();
        setState({ at: 'join', message: error.message });
        return;
      }
      setState({
        at: 'opening',
        message: 'The server cannot be reached. What was measured is safe here; trying again.',
      });
      setTimeout(() => void takeUp(), 2_000);
    }
  }

  useEffect(() => {
    if (state.at !== 'running' || !detected || !host.current || conductor.current) return;
    const round = conduct(
      api.current,
      outbox.current!,
      state.seat,
      detected.clockResolutionMs,
      host.current,
      setShowing,
    );
    conductor.current = round;
    void round.ended.then(async (how) => {
      conductor.current = null;
      await outbox.current!.leave();
      setShowing((last) => {
        setState({ at: 'over', how, showing: last });
        return last;
      });
    });
  }, [state, detected]);

  async function join(code: string) {
    const token = await api.current.join(code, deviceInWords(detected));
    await outbox.current!.takeSeat(token);
    // The code is used now; a reload must not try it again.
    history.replaceState(null, '', '/j');
    await takeUp();
  }

  async function start(body: StartBody, allowStorage: boolean) {
    await outbox.current!.allowStorage(allowStorage);
    const seat = await api.current.start(body);
    setState({ at: 'running', seat });
  }

  return (
    <div className="mx-auto flex min-h-dvh max-w-[680px] flex-col px-5 pb-10">
      <header className="flex items-center gap-2 py-4">
        <img src={new URL('../shell/yarrow.svg', import.meta.url).href} alt="" className="h-6 w-6" />
        <span className="font-title text-[19px] font-semibold">Yarrowmark</span>
        <span className="small ml-auto">device under test</span>
      </header>
      <main className="flex-1">
        {state.at === 'opening' && (
          <p role="status" className="py-10 text-ink-2">
            {state.message ?? 'Opening.'}
          </p>
        )}
        {state.at === 'join' && <Join code={codeFromAddress()} message={state.message} onJoin={join} />}
        {state.at === 'setup' && <Setup api={api.current} seat={state.seat} detected={detected} onStart={start} />}
        {state.at === 'running' && (
          <Running
            seat={state.seat}
            showing={showing}
            onStop={() => conductor.current?.stop()}
            onGoOn={() => conductor.current?.goOn()}
          />
        )}
        {state.at === 'over' && (
          <section className="py-6">
            <h1>{state.how === 'DONE' ? 'Finished' : 'Stopped'}</h1>
            <p className="mt-2 text-[16px] text-ink-2">
              {state.how === 'DONE'
                ? 'Every result is in the ledger. This device can be used again.'
                : 'What was finished before is in the ledger. This device can be used again.'}
            </p>
            {state.showing?.notTaken.map((lost, i) => (
              <p key={i} className="mt-2 text-plum">
                {lost.message}
              </p>
            ))}
            <button className="button mt-6" onClick={() => setState({ at: 'join' })}>
              Join again with a new code
            </button>
          </section>
        )}
        {/* Tests that need a page draw in here; it is part of the page only while a round runs. */}
        <div
          ref={host}
          className={state.at === 'running' ? 'mt-4 overflow-hidden [&>iframe]:border-0' : 'hidden'}
          aria-hidden="true"
        />
      </main>
    </div>
  );
}

function codeFromAddress(): string {
  const part = location.pathname.split('/')[2];
  try {
    return part ? decodeURIComponent(part) : '';
  } catch {
    return '';
  }
}

function deviceInWords(detected: Detected | null): string {
  const value = (key: string) => detected?.facts.find((f) => f.key === key)?.value;
  return [value('browser.name'), value('os.name')].filter(Boolean).join(' on ').slice(0, 200) || 'A browser';
}

/** What went wrong, for a person. */
export function inWords(error: unknown): string {
  if (error instanceof Refused) return error.message;
  if (error instanceof Unreachable)
    return 'The server cannot be reached. Check that this device is on the same network, and try again.';
  return `Something went wrong on this page: ${error instanceof Error ? error.message : String(error)}`;
}
