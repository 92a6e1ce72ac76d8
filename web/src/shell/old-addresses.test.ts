import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { defaultParseSearch } from '@tanstack/react-router';
import { expect, test } from 'vitest';
import { router } from '../router.tsx';
import { askOf, searchOf } from '../standings/question/ask.ts';
import {
  benchSearch,
  cardSearch,
  compareSearch,
  ledgerSearch,
  plansSearch,
  shelfSearch,
  standingsSearch,
  trendsSearch,
} from './search-params.ts';

/**
 * Addresses that people saved and write-ups lead to, each with what it asks. A line here is never changed: an address that
 * gets another form is still read as it was. New ones are added below.
 */
const ADDRESSES: [string, (raw: Record<string, unknown>) => object, object][] = [
  ['/standings', standingsSearch, {}],
  ['/standings?classes=%5B%22LAPTOP%22%5D&form=list', standingsSearch, { classes: ['LAPTOP'], form: 'list' }],
  ['/standings?classes=LAPTOP', standingsSearch, { classes: ['LAPTOP'] }],
  ['/standings?metric=7&form=charts&lit=3', standingsSearch, { metric: 7, form: 'charts', lit: 3 }],
  ['/standings?only=%5B1%2C2%5D&every=true', standingsSearch, { only: [1, 2], every: true }],
  [
    '/standings?purpose=2&without=%5B%22group%3ASTORAGE%22%2C%22test%3A9%22%5D&take=ALL',
    standingsSearch,
    { purpose: 2, without: ['group:STORAGE', 'test:9'], take: 'ALL' },
  ],
  [
    '/standings?facts=%5B%22memory.size~AT_LEAST~16%20GB%22%5D&from=100&to=900&since=2020&makers=%5B%22Ostler%22%5D',
    standingsSearch,
    { facts: ['memory.size~AT_LEAST~16 GB'], from: 100, to: 900, since: 2020, makers: ['Ostler'] },
  ],
  [
    '/standings?why=4&power=BATTERY&models=BEST&fresh=true',
    standingsSearch,
    { why: 4, power: 'BATTERY', models: 'BEST', fresh: true },
  ],
  ['/standings?per=price&base=5', standingsSearch, { per: 'price', base: 5 }],
  ['/shelf/configurations/4/card?classes=%5B%22PHONE%22%5D&beside=2', cardSearch, { classes: ['PHONE'], beside: 2 }],
  ['/compare?ids=%5B1%2C2%5D', compareSearch, { ids: [1, 2] }],
  ['/compare?ids=[4,6]', compareSearch, { ids: [4, 6] }],
  [
    '/compare?ids=%5B1%2C2%2C3%5D&base=2&purpose=1&matters=5&per=price&sizes=times&take=RECORDED&baseTake=USUAL',
    compareSearch,
    {
      ids: [1, 2, 3],
      base: 2,
      purpose: 1,
      matters: 5,
      per: 'price',
      sizes: 'times',
      take: 'RECORDED',
      baseTake: 'USUAL',
    },
  ],
  [
    '/compare?ids=%5B1%2C2%5D&factors=true&first=power.source&open=8&order=size',
    compareSearch,
    { ids: [1, 2], factors: true, first: 'power.source', open: 8, order: 'size' },
  ],
  ['/trends?model=7', trendsSearch, { model: 7 }],
  [
    '/trends?model=7&unit=2&along=os.kernel&form=panels&without=%5B%22suite%3A4%22%5D',
    trendsSearch,
    { model: 7, unit: 2, along: 'os.kernel', form: 'panels', without: ['suite:4'] },
  ],
  ['/trends?with=%5B%229-1%22%5D&metric=3&even=true', trendsSearch, { with: ['9-1'], metric: 3, even: true }],
  ['/ledger?reading=12', ledgerSearch, { reading: 12 }],
  [
    '/ledger?state=SET_ASIDE&model=3&from=2026-04-01&sort=VALUE&falling=true&page=2',
    ledgerSearch,
    { state: 'SET_ASIDE', model: 3, from: '2026-04-01', sort: 'VALUE', falling: true, page: 2 },
  ],
  [
    '/shelf?q=folio&classes=%5B%22LAPTOP%22%5D&sort=PRICE',
    shelfSearch,
    { q: 'folio', classes: ['LAPTOP'], sort: 'PRICE' },
  ],
  ['/plans?edit=4', plansSearch, { edit: 4 }],
  ['/bench?plan=3&must=true&runs=5', benchSearch, { plan: 3, must: true, runs: 5 }],
];

/** Further pages, with whatever may follow; what is typed after the path is the view's own. */
const PAGES = [
  '/shelf/models/1',
  '/shelf/configurations/1',
  '/shelf/configure?unit=1',
  '/shelf/difference?ids=[1,2]',
  '/shelf/checklists',
  '/bench/by-hand?configuration=1',
  '/bench/sheet/1',
  '/suites',
  '/suites/1',
  '/ledger/import',
  '/kept',
  '/write-ups',
  '/write-ups/1',
  '/write-ups/1/stage?desk=true',
  '/people',
  '/people/log?page=2',
  '/people/interface',
];

const known = (of: object) => Object.fromEntries(Object.entries(of).filter(([, v]) => v !== undefined));

test.each(ADDRESSES)('%s asks what it asked', (address, read, asks) => {
  const [, query] = address.split('?');
  expect(known(read(defaultParseSearch(query === undefined ? '' : `?${query}`)))).toEqual(asks);
});

/** The parts of an address that say whose view it is. */
const parts = (path: string) => path.split('/').filter((part) => part !== '').length;

test.each([...ADDRESSES.map(([address]) => address), ...PAGES])('%s leads to a view', (address) => {
  const [path = ''] = address.split('?');
  const view: { fullPath: string } = router.getMatchedRoutes(path)[0].at(-1)!;
  expect(parts(view.fullPath)).toBe(parts(path));
});

test('the server answers every address of a view, also one that is reloaded or sent to somebody', () => {
  const pages = join(import.meta.dirname, '../../../server/src/main/java/yarrowmark/server/platform/http/Pages.java');
  const served = readFileSync(pages, 'utf8');
  const views = Object.keys(router.routesByPath).map((path) => path.split('/')[1]!);
  expect([...new Set(views)].filter((view) => !served.includes(`"/${view}"`))).toEqual([]);
});

test('a question that was stored with a write-up leads to the view that asks the same', () => {
  const stored = {
    deviceClass: ['LAPTOP' as const],
    purpose: 2,
    without: ['group:STORAGE'],
    take: 'ALL' as const,
    typical: true,
  };
  expect(askOf(searchOf(stored), undefined)).toEqual(stored);
});

test('what programs ask the interface with is still there', () => {
  const src = join(import.meta.dirname, '..');
  const document = JSON.parse(readFileSync(join(src, '..', 'openapi.json'), 'utf8')) as {
    paths: Record<string, Record<string, { parameters?: { name: string; in: string }[] }>>;
  };
  const gone = readFileSync(join(src, 'api', 'promised.txt'), 'utf8')
    .split('\n')
    .filter((line) => line !== '' && !line.startsWith('#'))
    .flatMap((line) => {
      const [call, names = ''] = line.split(' ? ');
      const [method, path] = call!.split(' ');
      const now = document.paths[path!]?.[method!.toLowerCase()];
      if (!now) return [line];
      const taken = new Set((now.parameters ?? []).filter((p) => p.in === 'query').map((p) => p.name));
      return names
        .split(' ')
        .filter((name) => name !== '' && !taken.has(name))
        .map((name) => `${call} takes no ${name}`);
    });
  expect(gone).toEqual([]);
});
