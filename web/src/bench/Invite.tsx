import { useMutation, useQuery } from '@tanstack/react-query';
import { QRCodeSVG } from 'qrcode.react';
import { useState } from 'react';
import { api, value } from '../api/client.ts';
import { CopyButton } from '../ui/CopyButton.tsx';
import { countdown, day } from '../format/format.ts';
import { useKeys } from '../shell/keys.ts';
import type { Lane } from './useBench.ts';

interface Settings {
  planId: number;
  runs: number;
  timedMs: number;
  pauseMs: number;
  mustOnly: boolean;
}

/** Makes the code that lets one device in, and shows it while it waits. */
export function Invite({ settings, waiting, now }: { settings: Settings; waiting: readonly Lane[]; now: number }) {
  const invite = useMutation({ mutationFn: () => value(api.POST('/api/bench/seats', { body: settings })) });
  const withdraw = useMutation({
    mutationFn: (id: number) => value(api.DELETE('/api/bench/seats/{id}', { params: { path: { id } } })),
  });
  useKeys([{ key: 'n', does: 'A code for one more device', changes: true, run: () => invite.mutate() }]);
  const open = waiting.filter((lane) => new Date(lane.expiresAt).getTime() > now);
  const reach = useQuery({ queryKey: ['reach'], queryFn: () => value(api.GET('/api/reach')), staleTime: 60_000 }).data;
  const [chosen, setChosen] = useState<string | null>(null);
  const address = chosen ?? reach?.addresses[0] ?? location.origin;
  const here = reach?.addresses.length === 0 && /^(localhost|127\.|\[::1\])/.test(location.hostname);
  return (
    <section data-changes aria-label="Bring a device to the bench">
      <h2>Bring a device to the bench</h2>
      {open.slice(0, 3).map((lane, i) => (
        <div key={lane.seatId} className="mt-3">
          <p
            className={`font-title tracking-[0.04em] whitespace-nowrap ${i === 0 ? 'text-[25px]' : 'text-[18px]'}`}
            data-testid="code"
          >
            {lane.code}
          </p>
          <div className="mt-1 flex items-center gap-3">
            {i === 0 && (
              <div className="rounded-md bg-white p-1.5">
                <QRCodeSVG
                  value={`${address}/j/${lane.code}`}
                  size={96}
                  bgColor="#ffffff"
                  fgColor="#1d2a24"
                  title={`Address with the code ${lane.code}`}
                />
              </div>
            )}
            <p className="small">
              {i === 0 && (
                <>
                  Scan, or open
                  <br />
                  <a
                    className="link font-semibold break-all text-ink"
                    href={`${address}/j`}
                    target="_blank"
                    rel="noreferrer"
                  >
                    {address.replace(/^http:\/\//, '')}/j
                  </a>
                  <br />
                </>
              )}
              Works once, {countdown(new Date(lane.expiresAt).getTime() - now)} left.{' '}
              <button
                className="link"
                onClick={() => withdraw.mutate(lane.seatId)}
                aria-label={`Withdraw the code ${lane.code}`}
              >
                Withdraw
              </button>
            </p>
          </div>
        </div>
      ))}
      <button
        className={`button mt-3 ${open.length === 0 ? 'button-main' : ''}`}
        disabled={invite.isPending}
        onClick={() => invite.mutate()}
      >
        {open.length === 0 ? 'Make a code' : 'Another code'} <kbd>n</kbd>
      </button>
      <p role="alert" className="text-plum">
        {invite.error?.message ?? withdraw.error?.message}
      </p>
      {open[0] && <ForComputers address={address} code={open[0].code ?? ''} />}
      {here && (
        <p className="small mt-2">
          This server listens on this machine only, so the device is another browser window here. Started with{' '}
          <span className="whitespace-nowrap">bin/start --lan</span>, phones and other devices can join.
        </p>
      )}
      {reach && reach.addresses.length > 1 && (
        <label className="small mt-3 block">
          The device's way here
          <select className="field" value={address} onChange={(e) => setChosen(e.target.value)}>
            {reach.addresses.map((a) => (
              <option key={a}>{a}</option>
            ))}
          </select>
        </label>
      )}
      {reach?.fingerprint && !reach.own && (
        <details className="small mt-3" open>
          <summary className="cursor-pointer">The device's browser will warn once</summary>
          <p className="mt-1">
            Because this server made its certificate itself. Go on if the browser shows this fingerprint (SHA-256):
          </p>
          <p className="mt-1 font-mono text-[11px] leading-4 break-words text-ink" data-testid="fingerprint">
            {reach.fingerprint.replace(/(.{24})/g, '$1\u200b')}
          </p>
          <p className="mt-1">Valid until {day(reach.validUntil!)}; it is made anew before that.</p>
        </details>
      )}
    </section>
  );
}

/** How a computer joins without a browser, for what a browser cannot see. */
function ForComputers({ address, code }: { address: string; code: string }) {
  const offered = useQuery({
    queryKey: ['runner'],
    queryFn: () => value(api.GET('/api/bench/runner')),
    staleTime: Infinity,
  }).data;
  const line = `java -jar yarrow-runner.jar ${address} ${code}`;
  if (!offered?.jar) return null;
  return (
    <details className="small mt-3">
      <summary className="cursor-pointer">A computer without a browser</summary>
      <p className="mt-1">
        The runner measures drives, memory and processor themselves: the suites called native. Fetch{' '}
        <a className="link" href="/runner/yarrow-runner.jar" download>
          yarrow-runner.jar
        </a>{' '}
        there
        {offered?.folder ? (
          <>
            {' '}
            (it needs Java 17; for Linux on x86-64 there is{' '}
            <a className="link" href="/runner/yarrow-runner-linux-x64.tar.gz" download>
              a folder
            </a>{' '}
            with its own)
          </>
        ) : (
          ' (it needs Java 17)'
        )}
        , and start it:
      </p>
      <p className="mt-1 font-mono text-[12px] leading-4 break-all text-ink" data-testid="runner-line">
        {line}
      </p>
      <p className="mt-1">
        <CopyButton text={line} what="the line" />
      </p>
    </details>
  );
}
