import { expect, test } from 'vitest';
import type { Answer, Question } from '../types.ts';
import { believed, typedLevel, typedWatts, type Seen } from './level.ts';
import { ASK_MS, LOOK_MS, runBattery, type Around, type Kept } from './run-down.ts';

/** A device with a battery of our own making, in which minutes pass as fast as they are waited for. */
class Device {
  level: number;
  charging = false;
  perMinute: number;
  tells = true;
  time = 0;
  calendar = 1_700_000_000_000;
  kept: unknown = null;
  load = 0;
  begun = 0;
  asked: string[] = [];
  until = 'end';
  /** What happens when a time has come, by its minute. */
  happens = new Map<number, () => void>();
  /** Answers what stands while the run goes on. */
  beside: ((answer: Answer) => void)[] = [];

  constructor(level: number, perMinute: number) {
    this.level = level;
    this.perMinute = perMinute;
  }

  pass(ms: number): void {
    this.time += ms;
    this.calendar += ms;
    this.level = Math.min(100, Math.max(0, this.level + ((this.charging ? 2 : -this.perMinute) * ms) / 60_000));
    this.happens.get(Math.round(this.time / 60_000))?.();
    if (this.level <= 0) throw new Error('the device is off');
  }

  around(): Around {
    return {
      look: async (): Promise<Seen | null> => (this.tells ? believed({ level: Math.floor(this.level) / 100, charging: this.charging }) : null),
      now: () => this.time,
      date: () => this.calendar,
      wait: async (ms) => this.pass(ms),
      ask: (question, signal) => this.answer(question, signal),
      notes: {
        read: async () => structuredClone(this.kept),
        write: async (notes) => void (this.kept = structuredClone(notes)),
      },
      load: () => {
        this.load++;
        this.begun++;
        return () => void this.load--;
      },
    };
  }

  private answer({ title, buttons, fields }: Question, signal?: AbortSignal): Promise<Answer> {
    if (title === '')
      return new Promise((resolve, reject) => {
        this.beside.push(resolve);
        signal!.addEventListener('abort', () => reject(new Error('no longer asked')));
      });
    this.asked.push(title);
    if (title === 'Unplug it' || title === 'Plug it in') this.charging = title === 'Plug it in';
    const level = fields?.some((f) => f.key === 'level') ? { level: String(Math.floor(this.level)) } : {};
    return Promise.resolve({ button: buttons.find((b) => b.key === this.until)?.key ?? buttons[0]!.key, fields: level as Record<string, string> });
  }
}

const levels = (samples: number[]) => samples.filter((_, i) => i % 2 === 1);
const minutes = (samples: number[]) => samples.filter((_, i) => i % 2 === 0);

test('a battery falls: its level is kept each minute and the run ends where it was to end', async () => {
  const device = new Device(80, 0.5);
  device.until = 'fifth';
  const measured = await runBattery(true, device.around());
  expect(levels(measured.samples)[0]).toBe(80);
  expect(levels(measured.samples).at(-1)).toBe(60);
  // The last step is seen as soon as the level is below 61.
  expect(minutes(measured.samples).at(-1)).toBeCloseTo(39, 0);
  expect(measured.timedMs / 60_000).toBeCloseTo(39, 0);
  expect(measured.note).toContain('a part, which tells how fast that part went');
  expect([device.begun, device.load]).toEqual([1, 0]);
});

test('what is kept each minute is what a run that goes empty ends with, on the day that it is charged again', async () => {
  const device = new Device(100, 1);
  await expect(runBattery(true, device.around())).rejects.toThrow('the device is off');
  const kept = device.kept as Kept;
  expect(kept.points.at(-1)).toBeLessThanOrEqual(1);
  device.level = 40;
  device.charging = true;
  device.time = 0;
  device.calendar += 9 * 3_600_000;
  const measured = await runBattery(true, device.around());
  expect(measured.samples).toEqual(kept.points);
  expect(measured.note).toContain('It went empty');
  expect(measured.note).not.toContain('a part');
  expect(device.begun, 'nothing is run any more').toBe(1);
});

test('a page that was away for a while goes on with the same run', async () => {
  const device = new Device(60, 1);
  device.until = 'fifth';
  device.happens.set(10, () => {
    throw new Error('discarded');
  });
  await expect(runBattery(true, device.around())).rejects.toThrow('discarded');
  const before = (device.kept as Kept).points.length;
  device.happens.clear();
  device.pass(4 * 60_000);
  device.time = 0;
  const measured = await runBattery(true, device.around());
  expect(measured.samples.length).toBeGreaterThan(before);
  expect(minutes(measured.samples).every((m, i, all) => i === 0 || m > all[i - 1]!)).toBe(true);
  expect(minutes(measured.samples).at(-1)).toBeCloseTo(20, 0);
  expect(measured.note).toContain('The page was away for 5 min.');
  expect(device.begun).toBe(2);
});

test('what was answered at the beginning is not asked again, however early the page goes', async () => {
  const device = new Device(60, 1);
  device.until = 'fifth';
  device.happens.set(1, () => {
    throw new Error('discarded');
  });
  await expect(runBattery(true, device.around())).rejects.toThrow('discarded');
  device.happens.clear();
  const measured = await runBattery(true, device.around());
  expect(device.asked).toEqual(['How far down?']);
  expect(levels(measured.samples).at(-1)).toBeLessThanOrEqual(40);
});

test.each([
  ['was away for long', (d: Device) => (d.calendar += 3 * 3_600_000), 'away for 3.0 h'],
  ['was charged meanwhile', (d: Device) => (d.level = 90), 'charged while the page was away'],
  ['is on its charger', (d: Device) => (d.charging = true), 'charged while the page was away'],
  ['has a clock that was set back', (d: Device) => (d.calendar -= 86_400_000), 'clock was set back'],
])('a run whose device %s ends with what was seen before', async (_, meanwhile, words) => {
  const device = new Device(60, 1);
  device.happens.set(10, () => {
    throw new Error('discarded');
  });
  await expect(runBattery(true, device.around())).rejects.toThrow('discarded');
  const kept = (device.kept as Kept).points;
  device.happens.clear();
  meanwhile(device);
  const measured = await runBattery(true, device.around());
  expect(measured.samples).toEqual(kept);
  expect(measured.note).toContain(words);
});

test('a charger in the middle ends the run before it', async () => {
  const device = new Device(90, 1);
  device.happens.set(20, () => (device.charging = true));
  const measured = await runBattery(true, device.around());
  expect(minutes(measured.samples).at(-1)).toBeLessThan(20);
  expect(measured.note).toContain('It was plugged in after 20 min.');
});

test('a clock that jumps over a night is said and moves nothing', async () => {
  const device = new Device(90, 1);
  device.until = 'fifth';
  device.happens.set(10, () => (device.calendar += 8 * 3_600_000));
  const measured = await runBattery(true, device.around());
  expect(measured.note).toContain('The clocks part by 8.0 h after 10 min');
  expect(minutes(measured.samples).at(-1)).toBeCloseTo(20, 0);
});

test('where the browser does not tell, the level is asked for at sensible times, and the run says so', async () => {
  const device = new Device(70, 0.4);
  device.tells = false;
  device.until = 'fifth';
  const measured = await runBattery(true, device.around());
  expect(minutes(measured.samples).slice(1).every((m) => Math.abs(m % (ASK_MS / 60_000)) < 0.1)).toBe(true);
  expect(levels(measured.samples).at(-1)).toBeLessThanOrEqual(50);
  expect(measured.note).toContain('The levels were typed.');
});

test('a level that cannot be is no level', async () => {
  for (const level of [NaN, -0.1, 1.2, undefined as unknown as number]) expect(believed({ level, charging: false })).toBeNull();
  expect(believed({ level: 0, charging: false })!.level).toBe(0.5);
  expect(['80', ' 80 %', '79,5', '100'].map(typedLevel)).toEqual([80, 80, 79.5, 100]);
  expect(['', '0', '101', 'full', '-3', '1e2', undefined].map(typedLevel)).toEqual(new Array(7).fill(null));
  expect(['7.25 W', '7,25', '0', 'two'].map(typedWatts)).toEqual([7.25, 7.25, null, null]);
});

test('one that was not unplugged is asked again until it is', async () => {
  const device = new Device(50, 1);
  device.charging = true;
  device.until = 'fifth';
  await runBattery(true, device.around());
  expect(device.asked).toEqual(['How far down?', 'Unplug it']);
});

test('whoever holds it ends it when it is enough, and a meter is noted', async () => {
  const device = new Device(80, 1);
  device.happens.set(5, () => device.beside.pop()!({ button: 'note', fields: { watts: '6' } }));
  device.happens.set(6, () => device.beside.pop()!({ button: 'note', fields: { watts: '8 W' } }));
  device.happens.set(7, () => device.beside.pop()!({ button: 'note', fields: { watts: 'eight' } }));
  device.happens.set(9, () => device.beside.pop()!({ button: 'end', fields: {} }));
  const measured = await runBattery(true, device.around());
  expect(measured.more).toEqual([{ metric: 'power', value: 7, resolution: 0 }]);
  expect(minutes(measured.samples).at(-1)).toBeLessThanOrEqual(10);
});

test('what was typed of a meter is kept at once', async () => {
  const device = new Device(80, 1);
  device.happens.set(5, () => {
    device.beside.pop()!({ button: 'note', fields: { watts: '6' } });
    device.happens.set(6, () => {
      expect((device.kept as Kept).watts).toEqual([6]);
      throw new Error('discarded');
    });
  });
  await expect(runBattery(true, device.around())).rejects.toThrow('discarded');
  expect((device.kept as Kept).watts).toEqual([6]);
});

test('charging goes up to full, and what is full already is refused', async () => {
  const device = new Device(15, 0.5);
  const measured = await runBattery(false, device.around());
  expect(levels(measured.samples)[0]).toBeLessThanOrEqual(15);
  expect(levels(measured.samples).at(-1)).toBe(100);
  expect(device.asked).toEqual(['Charging', 'Plug it in']);
  await expect(runBattery(false, new Device(100, 1).around())).rejects.toThrow('full already');
  const low = new Device(20, 1);
  low.until = 'most';
  await expect(runBattery(true, low.around())).rejects.toThrow('at 20 % already');
});

test('a level that lies, and never moves, is a failure that says so', async () => {
  const device = new Device(77.5, 0);
  device.happens.set(30, () => device.beside.pop()!({ button: 'end', fields: {} }));
  await expect(runBattery(true, device.around())).rejects.toThrow(/did not fall from 77 % in 3\d min/);
  expect(LOOK_MS).toBe(60_000);
});
