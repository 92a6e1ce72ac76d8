import type { DeviceSeat } from '../seat/api.ts';
import type { Detected } from './detect.ts';

/** Facts a browser cannot see. The server reads what is typed, in whatever unit people write it. */
const TYPED: { key: string; label: string; hint: string }[] = [
  { key: 'memory.size', label: 'Memory', hint: '16 GB' },
  { key: 'firmware.version', label: 'Firmware', hint: '1.11' },
  { key: 'power.mode', label: 'Power mode', hint: 'balanced' },
  { key: 'room.temperature', label: 'Room temperature', hint: '21.5 °C' },
];

/** What decides the scores of some suites, by the beginning of their tests' keys. */
const TYPED_FOR: { tests: string; facts: typeof TYPED }[] = [
  {
    tests: 'battery-',
    facts: [
      { key: 'display.brightness', label: 'Brightness on a white page', hint: '200 cd/m²' },
      { key: 'network.wireless_on', label: 'Wireless on', hint: 'yes' },
    ],
  },
  {
    tests: 'network-',
    facts: [
      { key: 'network.access_point', label: 'Access point', hint: 'its model' },
      { key: 'network.wireless_band', label: 'Band', hint: '5 GHz' },
      { key: 'network.wireless_channel', label: 'Channel', hint: '36' },
      { key: 'network.distance', label: 'Distance', hint: '3 m' },
      { key: 'network.walls', label: 'Walls between', hint: '0' },
    ],
  },
];

/** Whether something in it works a device as hard as it can. */
export const warms = (seat: DeviceSeat) =>
  seat.tests.some((t) => !t.byHand && !/^(network-|battery-(?!work))/.test(t.key));

export const typedFor = (seat: DeviceSeat) => [
  ...TYPED,
  ...TYPED_FOR.filter(({ tests }) => seat.tests.some((t) => t.key.startsWith(tests))).flatMap(({ facts }) => facts),
];

/** Below this most devices save power by themselves. */
const LOW = 0.2;

export const runsLow = ({ onMains, batteryLevel }: Detected) =>
  onMains === false && batteryLevel !== null && batteryLevel < LOW;

/**
 * In GB, where it is less than the browser and the largest of these tests were seen to need together (docs/performance.md).
 * What a browser tells is rounded down: one with 3 GB says 2.
 */
export function tooLittle(detected: Detected | null, seat: DeviceSeat): number | null {
  const told = Number(detected?.facts.find((f) => f.key === 'memory.reported')?.value ?? NaN) / 2 ** 30;
  return told < NEEDED_GB && seat.tests.some((t) => !t.byHand && !/^(network|battery)-/.test(t.key)) ? told : null;
}

const NEEDED_GB = 2;
