// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, test } from 'vitest';
import { TracksPart } from '../ledger/TracksPart.tsx';
import { LiveSensors } from './LiveSensors.tsx';

afterEach(cleanup);

test('each sensor says what it is now, clocks in GHz, and one that said nothing is left out', () => {
  render(
    <LiveSensors
      lines={[
        { name: 'Package id 0', unit: '°C', values: [41, 43.5] },
        { name: 'Core 0', unit: 'Hz', values: [2.4e9] },
        { name: 'Fan', unit: '1/min', values: [] },
      ]}
    />,
  );
  const items = screen.getAllByRole('listitem').map((i) => i.textContent);
  expect(items).toEqual(['Package id 043.5 °C', 'Core 02.4 GHz']);
});

test('sensors of a run are pictures with a name that says their range, and none are no section', () => {
  render(<TracksPart tracks={[]} />);
  expect(screen.queryByRole('heading')).toBeNull();
  render(
    <TracksPart
      tracks={[
        { kind: 'clock', name: 'Core 0', unit: 'Hz', stepMs: 500, values: [3e9, 2e9] },
        { kind: 'temperature', name: 'Package', unit: '°C', stepMs: 500, values: [50, 50] },
      ]}
    />,
  );
  expect(screen.getAllByRole('img').map((i) => i.getAttribute('aria-label'))).toEqual([
    'Temperature of the processor: 50 to 50 °C over 1 s',
    'Clock: 2 to 3 GHz over 1 s',
  ]);
});
