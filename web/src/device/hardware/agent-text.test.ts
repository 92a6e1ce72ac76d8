import { expect, test } from 'vitest';
import { browserFromText, roundsThreads, systemFromText } from './agent-text.ts';

test.each([
  [
    'Mozilla/5.0 (Fenland; aarch64) Gecko/20100101 Curlew/141.2',
    { name: 'Curlew', version: '141.2' },
    { name: 'Fenland', architecture: 'aarch64' },
    false,
  ],
  [
    'Mozilla/5.0 (X11; Fenland x86_64; rv:128.0) Gecko/20100101 Curlew/128.0',
    { name: 'Curlew', version: '128.0' },
    { name: 'Fenland', architecture: 'x86_64' },
    false,
  ],
  [
    'Mozilla/5.0 (Tern OS 9; U; tablet) AppleWebKit/600 (KHTML, like Gecko) Version/9.1 Safari/600',
    { name: 'a WebKit browser', version: '9.1' },
    { name: 'Tern OS 9' },
    true,
  ],
  [
    'Mozilla/5.0 (iPhone; CPU iPhone OS 17_4_1 like Mac OS X) AppleWebKit/605 (KHTML, like Gecko) Version/17.4 Mobile/15E1 Safari/604',
    { name: 'Safari', version: '17.4' },
    { name: 'iOS', version: '17.4.1' },
    true,
  ],
  [
    'Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605 (KHTML, like Gecko) Version/17.4 Safari/605',
    { name: 'Safari', version: '17.4' },
    { name: 'macOS' },
    true,
  ],
  [
    'Mozilla/5.0 (Linux; Android 14; Plover 3) AppleWebKit/537 (KHTML, like Gecko) Chrome/156.0.0.0 Mobile Safari/537',
    { name: 'Chrome', version: '156.0.0.0' },
    { name: 'Android', version: '14' },
    false,
  ],
  [
    'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/600 Chrome/156.0.1.2 Safari/600 Dunlin/88.4',
    { name: 'Dunlin', version: '88.4' },
    { name: 'Windows' },
    false,
  ],
])('%s', (text, browser, system, rounds) => {
  expect(browserFromText(text)).toEqual(browser);
  expect(systemFromText(text)).toEqual(system);
  expect(roundsThreads(text)).toBe(rounds);
});

test('nothing is made up', () => {
  expect(browserFromText('')).toBeNull();
  expect(systemFromText('no brackets')).toBeUndefined();
  expect(systemFromText('Mozilla/5.0 (X11; U)')).toBeUndefined();
});
