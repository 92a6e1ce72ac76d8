import { expect, test } from 'vitest';
import { planFile } from './plan-file.ts';

const COMMAND = {
  run: { arguments: ['tar', 'c', 'notes'], shell: false },
  expectedExit: 0,
  limitSeconds: 60,
  cache: 'WARM' as const,
};
const row = (key: string, more: object = {}) => ({
  key,
  name: key,
  suite: 'Harbour tools',
  number: '2',
  mode: '',
  retired: false,
  ...more,
});

test('holds what the runner can do, commands whole, and nothing else', () => {
  const plan = JSON.parse(
    planFile([
      row('native-threads'),
      row('runner-command-pack-1', { name: 'Pack', command: COMMAND }),
      row('typed-1'),
      row('native-weir-hash-one', { retired: true }),
    ])!,
  ) as { tests: unknown[]; maker: string };
  expect(plan.tests).toEqual([
    'native-threads',
    { suite: 'Harbour tools', version: '2', mode: '', test: 'Pack', command: COMMAND },
  ]);
  expect(plan.maker).toBe('');
});

test('a suite of which the runner can do nothing has no plan', () => {
  expect(planFile([row('typed-1'), row('weir-hash-one')])).toBeUndefined();
});
