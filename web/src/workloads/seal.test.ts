// Scores of one suite version are only comparable while the work inside it stays the same. This test holds the code of
// every workload against what it was when its suite version was made (code.json). A new suite version is sealed with
// `npm run seal`, which adds what is not there and never changes what is.
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { KERNELS, kernelOf } from './kernel/kernels.ts';
import suitesFile from './suites.json';

type Sealed = Record<string, Record<string, string>>;
interface SuiteEntry { name: string; version: string; mode?: string; tests: { key: string }[] }

const here = new URL('./', import.meta.url).pathname;
const CODE = `${here}code.json`;

/** Without comments and white space: those may be mended. */
const bare = (code: string) => code.replace(/\/\*[\s\S]*?\*\//g, '').replace(/(^|\s)\/\/.*$/gm, '').replace(/\s+/g, '');

function hashOf(files: string[], more = ''): string {
  const hash = createHash('sha256').update(more);
  for (const file of files.sort()) hash.update(bare(readFileSync(file, 'utf8')));
  return hash.digest('hex').slice(0, 16);
}

/** All code of a folder that runs on the device. */
function folder(name: string): string[] {
  return readdirSync(here + name, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
    .map((file) => `${here}${name}/${file}`);
}

function codeOf(suite: SuiteEntry): Record<string, string> {
  const parts: Record<string, string> = { measure: hashOf([`${here}measure.ts`]) };
  for (const { key: own } of suite.tests) {
    const key = own.replace(/^endurance-/, '');
    if (key !== own) parts.endure = hashOf([`${here}endure.ts`]);
    const kernel = kernelOf(key);
    if (kernel) {
      const [name, mode] = kernel.name.endsWith('-simd') ? [kernel.name.slice(0, -5), 'simd'] : [kernel.name, 'index'];
      parts[kernel.name] = hashOf([`${here}${name}/assembly/${mode}.ts`], JSON.stringify(KERNELS[kernel.name]));
    } else {
      // Small tests of one kind share a folder, which their keys begin with.
      const name = existsSync(here + key) ? key : key.slice(0, key.indexOf('-'));
      parts[name] = hashOf(folder(name));
      // Its scenes are made of the same things and held against the same pictures.
      if (name === 'gpu') parts.graphics = hashOf(folder('graphics'));
    }
  }
  return parts;
}

const titled = (suite: SuiteEntry) => [suite.name, suite.version, suite.mode].filter(Boolean).join(' ');
const suites: SuiteEntry[] = suitesFile.suites;

if (process.env.SEAL) {
  const sealed: Sealed = existsSync(CODE) ? (JSON.parse(readFileSync(CODE, 'utf8')) as Sealed) : {};
  for (const suite of suites) sealed[titled(suite)] ??= codeOf(suite);
  writeFileSync(CODE, `${JSON.stringify(sealed, null, 2)}\n`);
}

test.each(suites.map((suite) => [titled(suite), suite] as const))('the work of %s is what it was when that version was made', (title, suite) => {
  const sealed = (JSON.parse(readFileSync(CODE, 'utf8')) as Sealed)[title];
  const advice = `The code of a test of ${title} changed, so its scores are no longer comparable with those made before. Give the suite a new version in suites.json and run "npm run seal".`;
  expect(codeOf(suite), advice).toEqual(sealed);
});

test('every test of every suite has a workload of its own key', () => {
  const keys = suites.flatMap((suite) => suite.tests.map((t) => t.key));
  expect(new Set(keys).size).toBe(keys.length);
});
