// Scores of one suite version are only comparable while the work inside it stays the same. This test holds the code of
// every workload against what it was when its suite version was made (code.json). A new suite version is sealed with
// `npm run seal`, which adds what is not there and never changes what is. Where only what surrounds the timed work was
// mended (what is checked, what is said, where it may run), mended.json says so with the reason, by hand.
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { KERNELS, kernelOf } from './kernel/kernels.ts';
import suitesFile from './suites.json';

type Sealed = Record<string, Record<string, string>>;
interface SuiteEntry { name: string; version: string; mode?: string; tests: { key: string }[] }

/** Code of a suite's part before and after, and why scores are comparable all the same. */
interface Mended { suites: string[]; part: string; from: string; to: string; why: string }

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

/** What a part's code may be, given what it was. */
function mendedFrom(title: string, part: string, sealed: string): string {
  const next = mended.find((m) => m.part === part && m.from === sealed && m.suites.includes(title));
  return next ? mendedFrom(title, part, next.to) : sealed;
}

const titled = (suite: SuiteEntry) => [suite.name, suite.version, suite.mode].filter(Boolean).join(' ');
const { mended } = JSON.parse(readFileSync(`${here}mended.json`, 'utf8')) as { mended: Mended[] };
const suites: SuiteEntry[] = suitesFile.suites;

if (process.env.SEAL) {
  const sealed: Sealed = existsSync(CODE) ? (JSON.parse(readFileSync(CODE, 'utf8')) as Sealed) : {};
  for (const suite of suites) sealed[titled(suite)] ??= codeOf(suite);
  writeFileSync(CODE, `${JSON.stringify(sealed, null, 2)}\n`);
}

test.each(suites.map((suite) => [titled(suite), suite] as const))('the work of %s is what it was when that version was made', (title, suite) => {
  const sealed = Object.fromEntries(
    Object.entries((JSON.parse(readFileSync(CODE, 'utf8')) as Sealed)[title]!).map(([part, was]) => [part, mendedFrom(title, part, was)]),
  );
  const advice = `The code of a test of ${title} changed, so its scores are no longer comparable with those made before. Give the suite a new version in suites.json and run "npm run seal".`;
  expect(codeOf(suite), advice).toEqual(sealed);
});

test('whatever was mended says why, and leads from code that was sealed to code that is here', () => {
  for (const m of mended) {
    expect(m.why.length, `${m.part} ${m.to}`).toBeGreaterThan(40);
    for (const title of m.suites) {
      const suite = suites.find((s) => titled(s) === title)!;
      expect(mendedFrom(title, m.part, m.from)).toBe(codeOf(suite)[m.part]);
    }
  }
});

test('every test of every suite has a workload of its own key', () => {
  const keys = suites.flatMap((suite) => suite.tests.map((t) => t.key));
  expect(new Set(keys).size).toBe(keys.length);
});
