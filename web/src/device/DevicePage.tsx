import { useEffect, useRef, useState } from 'react';
import { chime } from '../ui/chime.ts';
import { DeviceApi, Refused, type DeviceSeat, type RoundAnswer, type StartBody } from './seat/api.ts';
import { runSession, type Conductor, type Showing } from './run/run-session.ts';
import { detect, type Detected } from './hardware/detect.ts';
import { deliverKept } from './run/deliver.ts';
import { Join } from './seat/Join.tsx';
import { joinBench } from './seat/join-bench.ts';
import { OtherRound } from './seat/OtherRound.tsx';
import { whenAlone } from './seat/one-tab.ts';
import { Outbox, type KnownDevice } from './seat/outbox.ts';
import { Over } from './run/Over.tsx';
import { saysWhy } from './seat/in-words.ts';
import { RefusedRuns } from './run/RefusedRuns.tsx';
import { Running } from './run/Running.tsx';
import { Setup } from './Setup.tsx';

/** Where the page is. Each state has what it needs and nothing else. */
type State =
  | { at: 'opening'; message?: string }
  | { at: 'elsewhere' }
  | { at: 'join'; code?: string; message?: string }
  | { at: 'other-round'; seat: DeviceSeat; code: string; kept: number }
  | { at: 'setup'; seat: DeviceSeat; known: KnownDevice | null }
  | { at: 'running'; seat: DeviceSeat }
  | { at: 'over'; how: 'DONE' | 'STOPPED'; showing: Showing | null; results: RoundAnswer | null };

/** The page on a device under test: code, facts, round. It needs no sign-in and keeps what it measures. */
export function DevicePage() {
  const [state, setState] = useState<State>({ at: 'opening' });
  const [detected, setDetected] = useState<Detected | null>(null);
  const [showing, setShowing] = useState<Showing | null>(null);
  const outbox = useRef<Outbox | null>(null);
  const api = useRef(new DeviceApi(null));
  /** The two of above, for what is drawn. */
  const [place, setPlace] = useState<{ api: DeviceApi; outbox: Outbox } | null>(null);
  const host = useRef<HTMLDivElement>(null);
  const conductor = useRef<Conductor | null>(null);

  useEffect(() => {
    void (async () => {
      setDetected(await detect());
    })();
    void whenAlone('yarrowmark-device', () => setState({ at: 'elsewhere' })).then(open);
    // Runs once: the page opens its own storage and looks whether a session was going on.
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
    const seat = await outbox.current.seat();
    if (seat) api.current = new DeviceApi(seat.token, seat.shelf);
    setPlace({ api: api.current, outbox: outbox.current });
    if (!seat) {
      // The answer to its code may have been lost, or this page ended before it was kept: the same seat is asked for again.
      const joining = await outbox.current.joining();
      return setState({ at: 'join', ...(joining && { code: joining.code }) });
    }
    await takeUp();
  }

  /** What this browser's device was the last time at this lab. */
  const known = async () => outbox.current!.known((await outbox.current!.seat())?.shelf ?? null);

  async function goOn(seat: DeviceSeat) {
    if (seat.sessionId === undefined) setState({ at: 'setup', seat, known: await known() });
    else setState({ at: 'running', seat });
  }

  /** Ends the round that this device is in, so that it can join another one. */
  async function leaveRound(code: string) {
    await deliverKept(api.current, outbox.current!, () => Date.now());
    await api.current.end('STOPPED').catch((error: unknown) => {
      // The reviewer may have ended it meanwhile; a server that is away has to be waited for.
      if (!(error instanceof Refused) || error.isForLater) throw error;
    });
    await outbox.current!.leave();
    setState({ at: 'join', code });
  }

  /** Goes on where the seat stands; tries again by itself while the server is away. */
  async function takeUp() {
    try {
      const seat = await api.current.seat();
      if (seat.phase === 'DONE' || seat.phase === 'STOPPED' || seat.phase === 'CLEARED') {
        // What was finished is delivered all the same: the bench keeps it for the reviewer.
        const { late } = await deliverKept(api.current, outbox.current!, () => Date.now());
        await outbox.current!.leave();
        setState({
          at: 'join',
          message:
            late > 0
              ? `The session was ended at the bench. ${late} finished ${late === 1 ? 'run came' : 'runs came'} after that and ${late === 1 ? 'is' : 'are'} kept there: the reviewer can take ${late === 1 ? 'it' : 'them'} in.`
              : 'That session is over. A new one needs a new code.',
        });
      } else if (codeFromAddress()) {
        const kept = (await outbox.current!.waiting()).length;
        setState({ at: 'other-round', seat, code: codeFromAddress(), kept });
      } else await goOn(seat);
    } catch (error) {
      if (error instanceof Refused && error.code === 'no-seat') {
        // Our own server does not know this seat any more. Whatever was not delivered stays and is shown.
        await outbox.current!.leave();
        setState({ at: 'join', message: error.message });
        return;
      }
      const kept = (await outbox.current!.waiting()).length;
      setState({
        at: 'opening',
        message: `${saysWhy(error) ? error.message : 'The server cannot be reached.'} ${kept === 0 ? 'What was measured' : `What was measured, ${kept} ${kept === 1 ? 'run' : 'runs'} that no server has yet,`} is safe here; trying again.`,
      });
      setTimeout(() => void takeUp(), 2_000);
    }
  }

  useEffect(() => {
    if (state.at !== 'running' || !detected || !host.current || conductor.current) return;
    const round = runSession(
      api.current,
      outbox.current!,
      state.seat,
      detected.clockResolutionMs,
      host.current,
      setShowing,
    );
    conductor.current = round;
    const stuck = (error: unknown) => {
      conductor.current = null;
      const why = error instanceof Error ? error.message : String(error);
      setState({
        at: 'opening',
        message: `This page cannot go on: ${why}. What was measured is kept in this browser. Reload the page to go on; if that does not help, use another browser.`,
      });
    };
    void round.ended.then(async (how) => {
      conductor.current = null;
      // The scores are worth a question; the round is over without an answer as well.
      const results = await api.current.results().catch(() => null);
      await outbox.current!.leave();
      document.title = `${how === 'DONE' ? 'Finished' : 'Stopped'} · Yarrowmark`;
      chime(how === 'DONE' ? 'This device has finished its round.' : 'This device has stopped.');
      setShowing((last) => {
        setState({ at: 'over', how, showing: last, results });
        return last;
      });
    }, stuck);
  }, [state, detected]);

  async function join(code: string) {
    await joinBench(api.current, outbox.current!, code, deviceInWords(detected));
    // The code is used now; a reload must not try it again.
    history.replaceState(null, '', '/j');
    await takeUp();
  }

  async function start(body: StartBody, allowStorage: boolean, own: Omit<KnownDevice, 'shelf'>) {
    await outbox.current!.allowStorage(allowStorage);
    const seat = await api.current.start(body);
    await outbox.current!.remember({ ...own, shelf: (await outbox.current!.seat())?.shelf ?? null });
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
        {state.at === 'elsewhere' && (
          <p role="status" className="py-10 text-ink-2">
            This device is at the bench in another tab or window of this browser. Two at once would time each other, so
            this one waits. Close the other, and it goes on here.
          </p>
        )}
        {state.at === 'join' && (
          <Join code={codeFromAddress() || (state.code ?? '')} message={state.message} onJoin={join} />
        )}
        {state.at === 'other-round' && (
          <OtherRound
            seat={state.seat}
            code={state.code}
            kept={state.kept}
            onGoOn={() => {
              history.replaceState(null, '', '/j');
              void goOn(state.seat);
            }}
            onLeave={() => leaveRound(state.code)}
          />
        )}
        {state.at === 'setup' && place && (
          <Setup
            api={place.api}
            seat={state.seat}
            detected={detected}
            known={state.known}
            onStart={start}
            onForget={() => {
              void place.outbox.forget();
              setState({ ...state, known: null });
            }}
          />
        )}
        {state.at === 'running' && (
          <Running
            seat={state.seat}
            showing={showing}
            onStop={() => conductor.current?.stop()}
            onGoOn={() => conductor.current?.goOn()}
          />
        )}
        {state.at === 'over' && (
          <Over
            how={state.how}
            showing={state.showing}
            results={state.results}
            onAgain={() => setState({ at: 'join' })}
          />
        )}
        {(state.at === 'over' || state.at === 'join') && place && (
          <RefusedRuns key={state.at} outbox={place.outbox} seat={null} />
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
