// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import type { DeviceApi, DeviceSeat, StartBody } from './seat/api.ts';
import type { Detected } from './hardware/detect.ts';
import { Setup } from './Setup.tsx';

afterEach(cleanup);

const TARN = { id: 7, maker: 'Fellgate', name: 'Tarn 15', deviceClass: 'LAPTOP' };
const KNOWN = { shelf: 'home', maker: 'Fellgate', name: 'Tarn 15', unit: 'Unit 2', typed: { 'memory.size': '16 GB' } };
const SEAT = { seatId: 1, planName: 'Morning', runs: 3, timedMs: 100, pauseMs: 0, tests: [] } as unknown as DeviceSeat;
const detected = (more: Partial<Detected> = {}): Detected => ({
  facts: [],
  clockResolutionMs: 0.005,
  onMains: true,
  batteryLevel: 1,
  ...more,
});

function shown(rows: object[], more: Partial<Parameters<typeof Setup>[0]> = {}) {
  const onStart = vi.fn<(body: StartBody, allow: boolean, own: object) => Promise<void>>(async () => {});
  const onForget = vi.fn();
  const api = {
    models: async () => ({ rows }),
    model: async () => ({
      units: [
        { id: 1, label: 'Unit 1' },
        { id: 2, label: 'Unit 2' },
      ],
    }),
    checklist: async () => [],
  } as unknown as DeviceApi;
  render(
    <Setup api={api} seat={SEAT} detected={detected()} known={KNOWN} onStart={onStart} onForget={onForget} {...more} />,
  );
  return { onStart, onForget, user: userEvent.setup() };
}

test('a browser that was here before proposes what it was, and one press takes it', async () => {
  const { onStart, user } = shown([TARN, { ...TARN, id: 8, name: 'Tarn 15 S' }]);
  await user.click(await screen.findByRole('button', { name: 'It is that one' }));
  expect((await screen.findByLabelText<HTMLSelectElement>('Which unit')).value).toBe('2');
  expect(screen.getByLabelText<HTMLInputElement>('Memory').value).toBe('16 GB');
  await user.click(screen.getByRole('button', { name: 'Start morning' }));
  expect(onStart.mock.calls[0]![0]).toMatchObject({ modelId: 7, unitId: 2 });
  expect(onStart.mock.calls[0]![2]).toEqual({ maker: 'Fellgate', name: 'Tarn 15', unit: 'Unit 2', typed: KNOWN.typed });
});

test('a model that is no longer on the shelf is not proposed', async () => {
  shown([{ ...TARN, name: 'Tarn 15 S' }]);
  await screen.findByText('Tarn 15 S', { exact: false });
  expect(screen.queryByText('It is that one')).toBeNull();
});

test('its owner can have it forgotten', async () => {
  const { onForget, user } = shown([TARN]);
  await user.click(await screen.findByRole('button', { name: 'Forget it' }));
  expect(onForget).toHaveBeenCalledOnce();
});

test('a battery that runs low is told of, and one that charges is not', () => {
  shown([], { known: null, detected: detected({ onMains: false, batteryLevel: 0.12 }) });
  expect(screen.getByText(/battery is at 12 %/)).toBeDefined();
  cleanup();
  shown([], { known: null, detected: detected({ onMains: true, batteryLevel: 0.12 }) });
  expect(screen.queryByText(/battery is at/)).toBeNull();
});

test('a device with too little memory for the largest tests is told so before, and one with 3 GB is not', () => {
  const seat = { ...SEAT, tests: [{ key: 'memory-copy' }] } as unknown as DeviceSeat;
  const memory = (gib: number) => ({
    facts: [{ key: 'memory.reported', label: 'Memory', value: String(gib * 2 ** 30), shown: '' }],
  });
  shown([], { seat, known: null, detected: detected(memory(1)) });
  expect(screen.getByText(/tells of 1 GB of memory/)).toBeDefined();
  cleanup();
  shown([], { seat, known: null, detected: detected(memory(2)) });
  expect(screen.queryByText(/of memory, and/)).toBeNull();
  cleanup();
  shown([], { seat, known: null, detected: detected() });
  expect(screen.queryByText(/of memory, and/)).toBeNull();
});

test('a plan of batteries asks for what decides them, and is neither on mains nor on battery', async () => {
  const seat = { ...SEAT, tests: [{ key: 'battery-reading' }] } as unknown as DeviceSeat;
  const facts = [
    { key: 'os.name', label: 'System', value: 'Fenland', shown: 'Fenland' },
    { key: 'power.source', label: 'Power', value: 'battery', shown: 'battery' },
  ];
  const { onStart, user } = shown([TARN], { seat, detected: detected({ facts, onMains: false }) });
  await user.click(await screen.findByRole('button', { name: 'It is that one' }));
  await user.type(screen.getByLabelText('Brightness on a white page'), '200');
  expect(screen.queryByLabelText('Distance')).toBeNull();
  await user.click(screen.getByRole('button', { name: 'White page for a meter' }));
  const white = screen.getByRole('button', { name: /White page\. Press it/ });
  expect(document.activeElement).toBe(white);
  await user.keyboard('{Escape}');
  expect(screen.queryByRole('button', { name: /White page\. Press it/ })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Start morning' }));
  const body = onStart.mock.calls[0]![0];
  expect(body.onMains).toBeUndefined();
  expect(body.facts.map((f) => f.key)).toEqual(['os.name', 'memory.size', 'display.brightness']);
});
