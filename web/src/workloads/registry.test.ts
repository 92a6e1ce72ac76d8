import { expect, test } from 'vitest';
import { leavesPageIdle, loadWorkload } from './registry.ts';
import suitesFile from './suites.json';

const keys = suitesFile.suites.flatMap((suite) => suite.tests.map((t) => t.key));

test.each(keys)('%s has a workload of its key', async (key) => {
  const workload = await loadWorkload(key);
  expect(workload?.key).toBe(key);
  expect(typeof workload?.run).toBe('function');
});

test('what no suite has is not there, whatever it is called', async () => {
  for (const key of ['', 'toString', 'weir-hash', 'weir-hash-two', 'memory-', 'memory-sing', 'graphics-mist-721', 'graphics-toString-720', 'storage-', 'desk-constructor', 'page-', 'video-play-mpeg', 'video-sing-vp8', 'endurance-', 'endurance-nothing']) {
    const workload = await loadWorkload(key);
    if (workload) expect([key, workload.key]).toEqual(['weir-hash', 'weir-hash']);
  }
});

test('only tests that leave the page idle are watched for stalls', () => {
  expect(['weir-hash-one', 'memory-read', 'storage-write', 'desk-relay'].every(leavesPageIdle)).toBe(true);
  expect(['weir-hash-all', 'species-list', 'page-note-editor', 'desk-courier', 'graphics-display', 'video-play-vp8'].some(leavesPageIdle)).toBe(false);
});
