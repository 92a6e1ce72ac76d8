import { useEffect, useState } from 'react';
import type { DeviceApi, DeviceSeat, ModelUnits, ModelRow, StartBody } from './seat/api.ts';
import { inAll } from './hardware/about.ts';
import type { Detected } from './hardware/detect.ts';
import { inWords } from './seat/in-words.ts';
import { KnownBefore } from './seat/KnownBefore.tsx';
import type { KnownDevice } from './seat/outbox.ts';
import { Checks, type Check } from './hardware/Checks.tsx';
import { FoundOut } from './hardware/FoundOut.tsx';
import { WhitePage } from './run/WhitePage.tsx';
import { SpaceQuestion } from './hardware/SpaceQuestion.tsx';
import { warms, typedFor, runsLow, tooLittle } from './hardware/asked-facts.ts';

const CLASSES = ['LAPTOP', 'TABLET', 'PHONE', 'MINI', 'DESKTOP', 'BOARD'] as const;

type DeviceClass = (typeof CLASSES)[number];

export function Setup({
  api,
  seat,
  detected,
  known,
  onStart,
  onForget,
}: {
  api: DeviceApi;
  seat: DeviceSeat;
  detected: Detected | null;
  /** What this browser's device was the last time. */
  known: KnownDevice | null;
  onStart: (body: StartBody, allowStorage: boolean, own: Omit<KnownDevice, 'shelf'>) => Promise<void>;
  onForget: () => void;
}) {
  const [words, setWords] = useState('');
  const [models, setModels] = useState<ModelRow[] | null>(null);
  const [model, setModel] = useState<ModelRow | 'new' | null>(null);
  const [proposed, setProposed] = useState<ModelRow | null>(null);
  const [units, setUnits] = useState<ModelUnits['units']>([]);
  const [unit, setUnit] = useState<number | null>(null);
  const [maker, setMaker] = useState('');
  const [name, setName] = useState('');
  const [deviceClass, setDeviceClass] = useState<DeviceClass>('LAPTOP');
  const [typed, setTyped] = useState<Record<string, string>>({});
  const [mains, setMains] = useState<'mains' | 'battery'>('mains');
  const [checks, setChecks] = useState<Check[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const [space, setSpace] = useState(false);
  const [busy, setBusy] = useState(false);

  useEffect(() => {
    let wanted = true;
    const wait = setTimeout(() => {
      api.models(words).then(
        (found) => wanted && setModels(found.rows),
        (error: unknown) => wanted && setProblem(inWords(error)),
      );
    }, 150);
    return () => {
      wanted = false;
      clearTimeout(wait);
    };
  }, [words, api]);

  async function choose(row: ModelRow, label: string | null = null) {
    setModel(row);
    setUnits([]);
    setUnit(null);
    try {
      const page = await api.model(row.id);
      setUnits(page.units);
      setUnit((page.units.find((u) => u.label === label) ?? page.units[0])?.id ?? null);
    } catch (error) {
      setProblem(inWords(error));
    }
  }

  useEffect(() => {
    if (!known) return;
    let wanted = true;
    // A model that was taken off the shelf or called otherwise meanwhile is not proposed.
    api.models(`${known.maker} ${known.name}`).then(
      (found) => {
        const same = found.rows.find((row) => row.maker === known.maker && row.name === known.name);
        if (wanted) setProposed(same ?? null);
      },
      () => undefined,
    );
    return () => {
      wanted = false;
    };
  }, [known, api]);

  const short = tooLittle(detected, seat);
  const chosenClass = model === null ? null : model === 'new' ? deviceClass : model.deviceClass;
  const ready = detected !== null && model !== null && (model !== 'new' || (maker.trim() !== '' && name.trim() !== ''));

  useEffect(() => {
    if (chosenClass === null) return;
    let wanted = true;
    // Without its list a device can still be measured; the session then says that nothing was ticked.
    api.checklist(chosenClass).then(
      (items) => wanted && setChecks(items.map((text) => ({ text, ticked: false }))),
      () => wanted && setChecks([]),
    );
    return () => {
      wanted = false;
    };
  }, [chosenClass, api]);

  async function start() {
    if (!detected || !model) return;
    setBusy(true);
    setProblem(null);
    // What runs down is unplugged and charged in turn: neither is a fact of it, and no session of it is "on battery" by chance.
    const charges = seat.tests.length > 0 && seat.tests.every((t) => t.key.startsWith('battery-'));
    const facts = detected.facts
      .filter(({ key }) => !charges || key !== 'power.source')
      .map(({ key, value }) => ({ key, value, detected: true }));
    for (const fact of typedFor(seat)) {
      const value = typed[fact.key]?.trim();
      if (value) facts.push({ key: fact.key, value, detected: false });
    }
    if (detected.onMains === null && !charges) facts.push({ key: 'power.source', value: mains, detected: false });
    try {
      await onStart(
        {
          ...(model === 'new'
            ? { newModel: { maker: maker.trim(), name: name.trim(), deviceClass } }
            : { modelId: model.id, ...(unit === null ? {} : { unitId: unit }) }),
          facts,
          checks,
          ...(!charges && { onMains: detected.onMains ?? mains === 'mains' }),
          ...(detected.batteryLevel === null ? {} : { batteryLevel: detected.batteryLevel }),
        },
        space,
        {
          maker: model === 'new' ? maker.trim() : model.maker,
          name: model === 'new' ? name.trim() : model.name,
          unit: units.find((u) => u.id === unit)?.label ?? null,
          typed,
        },
      );
    } catch (error) {
      setProblem(inWords(error));
      setBusy(false);
    }
  }

  return (
    <form
      className="py-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (ready && !busy) void start();
      }}
    >
      <h1>Which model is this?</h1>
      {model && model !== 'new' ? (
        <>
          <p className="mt-3 flex items-baseline gap-3 text-[16px]">
            <b className="font-semibold">
              {model.maker} {model.name}
            </b>
            <button type="button" className="link small" onClick={() => setModel(null)}>
              another one
            </button>
          </p>
          {units.length > 1 && (
            <label className="small mt-3 block max-w-72">
              Which unit
              <select
                className="field text-[16px] text-ink"
                value={unit ?? ''}
                onChange={(e) => setUnit(Number(e.target.value))}
              >
                {units.map((u) => (
                  <option key={u.id} value={u.id}>
                    {u.label}
                  </option>
                ))}
              </select>
            </label>
          )}
        </>
      ) : model === 'new' ? (
        <div className="mt-3 grid grid-cols-2 gap-x-5 gap-y-3">
          <label className="small">
            Maker
            <input
              className="field text-[16px] text-ink"
              value={maker}
              maxLength={120}
              autoFocus
              onChange={(e) => setMaker(e.target.value)}
            />
          </label>
          <label className="small">
            Model
            <input
              className="field text-[16px] text-ink"
              value={name}
              maxLength={120}
              onChange={(e) => setName(e.target.value)}
            />
          </label>
          <label className="small">
            Class
            <select
              className="field text-[16px] text-ink"
              value={deviceClass}
              onChange={(e) => setDeviceClass(e.target.value as DeviceClass)}
            >
              {CLASSES.map((c) => (
                <option key={c} value={c}>
                  {c.toLowerCase()}
                </option>
              ))}
            </select>
          </label>
          <button type="button" className="link small self-end justify-self-start pb-2" onClick={() => setModel(null)}>
            choose from the shelf
          </button>
        </div>
      ) : (
        <div className="mt-3">
          {known && proposed && (
            <KnownBefore
              known={known}
              onThat={() => {
                setTyped(known.typed);
                void choose(proposed, known.unit);
              }}
              onForget={onForget}
            />
          )}
          <input
            className="field text-[16px]"
            placeholder="Search the shelf"
            aria-label="Search the shelf"
            value={words}
            maxLength={120}
            onChange={(e) => setWords(e.target.value)}
          />
          {/* Before the list: what comes later must not push it from under a finger. */}
          <button
            type="button"
            className="button mt-3"
            onClick={() => {
              setModel('new');
              setName(words);
            }}
          >
            It is a new model
          </button>
          <ul className="mt-1 max-h-56 overflow-y-auto">
            {models?.map((row) => (
              <li key={row.id}>
                <button
                  type="button"
                  className="w-full border-b border-hair-2 px-1 py-2 text-left hover:bg-band"
                  onClick={() => void choose(row)}
                >
                  <span className="font-semibold">
                    {row.maker} {row.name}
                  </span>{' '}
                  <span className="small">{row.deviceClass.toLowerCase()}</span>
                </button>
              </li>
            ))}
            {models?.length === 0 && <li className="small py-2">Nothing on the shelf has this name.</li>}
          </ul>
        </div>
      )}

      <FoundOut detected={detected} />

      <h2 className="mt-7">What it cannot see</h2>
      <p className="small">Optional. What you know here makes the score worth more later.</p>
      <div className="mt-2 grid grid-cols-2 gap-x-5 gap-y-3">
        {typedFor(seat).map((fact) => (
          <label key={fact.key} className="small">
            {fact.label}
            <input
              className="field text-[16px] text-ink"
              placeholder={fact.hint}
              maxLength={120}
              value={typed[fact.key] ?? ''}
              onChange={(e) => setTyped({ ...typed, [fact.key]: e.target.value })}
            />
          </label>
        ))}
        {detected && detected.onMains === null && (
          <label className="small">
            Power
            <select
              className="field text-[16px] text-ink"
              value={mains}
              onChange={(e) => setMains(e.target.value as 'mains' | 'battery')}
            >
              <option value="mains">plugged in</option>
              <option value="battery">on battery</option>
            </select>
          </label>
        )}
      </div>

      {seat.tests.some((t) => t.key.startsWith('battery-')) && <WhitePage />}

      <Checks checks={checks} onChecks={setChecks} />

      <SpaceQuestion tests={seat.tests} allowed={space} onAllowed={setSpace} />

      {short !== null && (
        <p role="status" className="mt-5 border-l-2 border-gold pl-3">
          This browser tells of {short} GB of memory, and with some of these tests it needs up to 1.2. Close everything
          else. Where the system takes the page away all the same, its run is repeated, and after five times the test
          counts as one that failed here.
        </p>
      )}
      {detected && runsLow(detected) && (
        <p role="status" className="mt-5 border-l-2 border-gold pl-3">
          The battery is at {Math.round(100 * detected.batteryLevel!)} %, and many devices are slower then. Plug it in,
          and turn power saving off; as it is, the session says that it ran on battery.
        </p>
      )}

      <p role="alert" className="mt-4 min-h-6 text-plum">
        {problem}
      </p>
      <button className="button button-main w-full py-3 text-[16px]" disabled={!ready || busy}>
        Start {seat.planName.toLowerCase()}
      </button>
      <p className="small mt-2">
        {seat.tests.length} {seat.tests.length === 1 ? 'test' : 'tests'}, {seat.runs} {seat.runs === 1 ? 'run' : 'runs'}{' '}
        each, {inAll(seat)}.{' '}
        {seat.tests.some((t) => t.key.startsWith('battery-'))
          ? 'The page says when to plug and unplug.'
          : seat.tests.some((t) => t.key === 'network-walk')
            ? 'The page says where to take the device.'
            : 'Plug the device in.'}{' '}
        Close everything else, and leave this page in front.{' '}
        {warms(seat) &&
          'All its processors and its graphics will work at their limit: the case may get as warm as in a long game. '}
        You can stop it at any time.
      </p>
    </form>
  );
}
