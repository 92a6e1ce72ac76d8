import { createRootRoute, createRoute, createRouter, lazyRouteComponent, redirect } from '@tanstack/react-router';
import { Loading } from './ui/states.tsx';
import { Shell } from './shell/Shell.tsx';
import { BrokenView } from './shell/BrokenView.tsx';
import { NotHere } from './shell/NotHere.tsx';
import {
  benchSearch,
  byHandSearch,
  cardSearch,
  compareSearch,
  configureSearch,
  differenceSearch,
  keptSearch,
  ledgerSearch,
  logSearch,
  plansSearch,
  shelfSearch,
  standingsSearch,
  trendsSearch,
  stageSearch,
} from './shell/search-params.ts';

/** What fetches each view, from the first paint on. */
const fetchers: (() => Promise<unknown>)[] = [];

/** A view's code comes when it is first opened; until then it is not waited for. */
const view: typeof lazyRouteComponent = (importer, name) => {
  fetchers.push(importer);
  return lazyRouteComponent(importer, name);
};

/** Fetches the views that nobody has opened yet, one after another, so that they open while the server is away too. */
export async function fetchViews(): Promise<void> {
  for (const fetchOne of fetchers) await fetchOne().catch(() => undefined);
}

const root = createRootRoute({ component: Shell, notFoundComponent: NotHere });
const home = createRoute({
  getParentRoute: () => root,
  path: '/',
  beforeLoad: () => {
    throw redirect({ to: '/today' });
  },
});
const today = createRoute({
  getParentRoute: () => root,
  path: '/today',
  component: view(() => import('./today/TodayView.tsx'), 'TodayView'),
});
const shelf = createRoute({
  getParentRoute: () => root,
  path: '/shelf',
  validateSearch: shelfSearch,
  component: view(() => import('./shelf/ShelfView.tsx'), 'ShelfView'),
});
const model = createRoute({
  getParentRoute: () => root,
  path: '/shelf/models/$modelId',
  component: view(() => import('./shelf/model/ModelView.tsx'), 'ModelView'),
});
const configuration = createRoute({
  getParentRoute: () => root,
  path: '/shelf/configurations/$configurationId',
  component: view(() => import('./shelf/configuration/ConfigurationView.tsx'), 'ConfigurationView'),
});
const card = createRoute({
  getParentRoute: () => root,
  path: '/shelf/configurations/$configurationId/card',
  validateSearch: cardSearch,
  component: view(() => import('./standings/card/CardView.tsx'), 'CardView'),
});
const configure = createRoute({
  getParentRoute: () => root,
  path: '/shelf/configure',
  validateSearch: configureSearch,
  component: view(() => import('./shelf/configuration/ConfigureView.tsx'), 'ConfigureView'),
});
const difference = createRoute({
  getParentRoute: () => root,
  path: '/shelf/difference',
  validateSearch: differenceSearch,
  component: view(() => import('./shelf/fact/DifferenceView.tsx'), 'DifferenceView'),
});
const checklists = createRoute({
  getParentRoute: () => root,
  path: '/shelf/checklists',
  component: view(() => import('./shelf/ChecklistsView.tsx'), 'ChecklistsView'),
});
const plans = createRoute({
  getParentRoute: () => root,
  path: '/plans',
  validateSearch: plansSearch,
  component: view(() => import('./plans/PlansView.tsx'), 'PlansView'),
});
const bench = createRoute({
  getParentRoute: () => root,
  path: '/bench',
  validateSearch: benchSearch,
  component: view(() => import('./bench/BenchView.tsx'), 'BenchView'),
});
const byHand = createRoute({
  getParentRoute: () => root,
  path: '/bench/by-hand',
  validateSearch: byHandSearch,
  component: view(() => import('./sheet/NewSessionView.tsx'), 'NewSessionView'),
});
const sheet = createRoute({
  getParentRoute: () => root,
  path: '/bench/sheet/$sessionId',
  component: view(() => import('./sheet/SheetView.tsx'), 'SheetView'),
});
const suites = createRoute({
  getParentRoute: () => root,
  path: '/suites',
  component: view(() => import('./suites/SuitesView.tsx'), 'SuitesView'),
});
const suite = createRoute({
  getParentRoute: () => root,
  path: '/suites/$versionId',
  component: view(() => import('./suites/SuiteView.tsx'), 'SuiteView'),
});
const spreadsheet = createRoute({
  getParentRoute: () => root,
  path: '/ledger/import',
  component: view(() => import('./ledger/spreadsheet/SpreadsheetView.tsx'), 'SpreadsheetView'),
});
const ledger = createRoute({
  getParentRoute: () => root,
  path: '/ledger',
  validateSearch: ledgerSearch,
  component: view(() => import('./ledger/LedgerView.tsx'), 'LedgerView'),
});
const compare = createRoute({
  getParentRoute: () => root,
  path: '/compare',
  validateSearch: compareSearch,
  component: view(() => import('./compare/CompareView.tsx'), 'CompareView'),
});
const people = createRoute({
  getParentRoute: () => root,
  path: '/people',
  component: view(() => import('./people/PeopleView.tsx'), 'PeopleView'),
});
const log = createRoute({
  getParentRoute: () => root,
  path: '/people/log',
  validateSearch: logSearch,
  component: view(() => import('./people/LogView.tsx'), 'LogView'),
});
const programs = createRoute({
  getParentRoute: () => root,
  path: '/people/interface',
  component: view(() => import('./people/InterfaceView.tsx'), 'InterfaceView'),
});
const kept = createRoute({
  getParentRoute: () => root,
  path: '/kept',
  validateSearch: keptSearch,
  component: view(() => import('./kept/KeptView.tsx'), 'KeptView'),
});
const standings = createRoute({
  getParentRoute: () => root,
  path: '/standings',
  validateSearch: standingsSearch,
  component: view(() => import('./standings/StandingsView.tsx'), 'StandingsView'),
});
const trends = createRoute({
  getParentRoute: () => root,
  path: '/trends',
  validateSearch: trendsSearch,
  component: view(() => import('./trends/TrendsView.tsx'), 'TrendsView'),
});

const writeUps = createRoute({
  getParentRoute: () => root,
  path: '/write-ups',
  validateSearch: keptSearch,
  component: view(() => import('./writeup/WriteUpsView.tsx'), 'WriteUpsView'),
});
const writeUp = createRoute({
  getParentRoute: () => root,
  path: '/write-ups/$writeUpId',
  component: view(() => import('./writeup/WriteUpView.tsx'), 'WriteUpView'),
});
const stage = createRoute({
  getParentRoute: () => root,
  path: '/write-ups/$writeUpId/stage',
  validateSearch: stageSearch,
  component: view(() => import('./writeup/stage/StageView.tsx'), 'StageView'),
});

export const router = createRouter({
  routeTree: root.addChildren([
    home,
    today,
    shelf,
    model,
    configuration,
    card,
    configure,
    difference,
    checklists,
    bench,
    byHand,
    sheet,
    suites,
    suite,
    plans,
    spreadsheet,
    ledger,
    compare,
    standings,
    trends,
    writeUps,
    writeUp,
    stage,
    kept,
    people,
    log,
    programs,
  ]),
  defaultPreload: false,
  defaultErrorComponent: BrokenView,
  defaultPendingComponent: () => <Loading what="the view" />,
});

declare module '@tanstack/react-router' {
  interface Register {
    router: typeof router;
  }
}
