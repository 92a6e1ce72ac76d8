// Says what failed of the tests that ran last, in a line each, and what took longest. Exits with 1 where something failed.
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');
const log = process.argv[2];
const FOLDERS = ['core', 'runner', 'server'].map((m) => join(m, 'target', 'surefire-reports')).concat(join('e2e', 'target', 'failsafe-reports'));

const plain = (text) =>
  text.replace(/&#(\d+);/g, (_, n) => String.fromCodePoint(Number(n))).replaceAll('&lt;', '<').replaceAll('&gt;', '>').replaceAll('&quot;', '"').replaceAll('&apos;', "'").replaceAll('&amp;', '&');
const attribute = (tag, name) => plain(new RegExp(`\\b${name}="([^"]*)"`).exec(tag)?.[1] ?? '');
// Reports write thousands apart from 1 000 s on.
const seconds = (tag) => Number(attribute(tag, 'time').replaceAll(',', ''));
const short = (name) => name.replace(/.*\./, '');
const oneLine = (text) => {
  const said = plain(text).replace(/\s+/g, ' ').trim();
  return said.length > 220 ? `${said.slice(0, 220)} …` : said;
};

const failed = [];
const classes = [];
const tests = [];
for (const folder of FOLDERS) {
  const place = join(root, folder);
  if (!existsSync(place)) continue;
  for (const file of readdirSync(place).filter((f) => f.startsWith('TEST-') && f.endsWith('.xml'))) {
    const xml = readFileSync(join(place, file), 'utf8');
    const suite = /<testsuite [^>]*>/.exec(xml)?.[0] ?? '';
    classes.push([seconds(suite), short(attribute(suite, 'name'))]);
    for (const [, tag, self, body] of xml.matchAll(/<testcase ([^>]*?)(\/>|>([\s\S]*?)<\/testcase>)/g)) {
      const name = `${short(attribute(tag, 'classname'))}.${attribute(tag, 'name')}`;
      tests.push([seconds(tag), name]);
      const wrong = self === '/>' ? null : /<(failure|error)\b([^>]*?)(\/>|>([\s\S]*?)<\/\1>)/.exec(body ?? '');
      if (wrong) {
        const said = attribute(wrong[2], 'message') || plain(wrong[4] ?? '').replace(/<!\[CDATA\[/, '').split('\n')[0];
        const seen = join(root, 'e2e', 'target', 'failures', name.replace(/[^A-Za-z0-9_.].*$/, ''));
        failed.push(`${name}: ${oneLine(said)}${existsSync(seen) ? `\n    what the browser showed, and its logs: ${relative(process.cwd(), seen)}/` : ''}`);
      }
    }
  }
}
const vitest = join(root, 'web', 'target', 'reports', 'vitest.json');
if (existsSync(vitest)) {
  for (const file of JSON.parse(readFileSync(vitest, 'utf8')).testResults) {
    const name = relative(join(root, 'web', 'src'), file.name);
    if (file.status === 'failed' && file.assertionResults.length === 0) failed.push(`${name}: ${oneLine(file.message)}`);
    for (const test of file.assertionResults)
      if (test.status === 'failed') failed.push(`${name}, ${test.fullName}: ${oneLine(test.failureMessages[0] ?? '')}`);
  }
}

const list = (title, all, most) => {
  if (all.length === 0) return;
  console.log(`${title}:`);
  for (const [time, name] of all.sort((a, b) => b[0] - a[0]).slice(0, most)) console.log(`${time.toFixed(1).padStart(9)} s  ${name}`);
};
list('The slowest classes', classes, 10);
list('The slowest tests', tests, 10);
if (failed.length > 0) {
  console.log(`\nFailed (${failed.length}):`);
  for (const line of failed) console.log(`  ${line}`);
  console.log(`The whole output: ${relative(process.cwd(), log)}`);
  process.exit(1);
}
