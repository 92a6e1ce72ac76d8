import { createRootRoute, createRoute, createRouter, redirect } from '@tanstack/react-router';
import { BenchView } from './bench/BenchView.tsx';
import { CompareView } from './compare/CompareView.tsx';
import { KeptView } from './kept/KeptView.tsx';
import { LedgerView } from './ledger/LedgerView.tsx';
import { SpreadsheetView } from './ledger/spreadsheet/SpreadsheetView.tsx';
import { InterfaceView } from './people/InterfaceView.tsx';
import { LogView } from './people/LogView.tsx';
import { PeopleView } from './people/PeopleView.tsx';
import { PlansView } from './plans/PlansView.tsx';
import { Shell } from './shell/Shell.tsx';
import { BrokenView } from './shell/BrokenView.tsx';
import { NotHere } from './shell/NotHere.tsx';
import { ChecklistsView } from './shelf/ChecklistsView.tsx';
import { ConfigurationView } from './shelf/configuration/ConfigurationView.tsx';
import { ConfigureView } from './shelf/configuration/ConfigureView.tsx';
import { DifferenceView } from './shelf/fact/DifferenceView.tsx';
import { ModelView } from './shelf/model/ModelView.tsx';
import { ShelfView } from './shelf/ShelfView.tsx';
import { NewSessionView } from './sheet/NewSessionView.tsx';
import { SheetView } from './sheet/SheetView.tsx';
import { SuitesView } from './suites/SuitesView.tsx';
import { SuiteView } from './suites/SuiteView.tsx';
import { CardView } from './standings/card/CardView.tsx';
import { StandingsView } from './standings/StandingsView.tsx';
import { TrendsView } from './trends/TrendsView.tsx';
import { StageView } from './writeup/stage/StageView.tsx';
import { WriteUpsView } from './writeup/WriteUpsView.tsx';
import { WriteUpView } from './writeup/WriteUpView.tsx';
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

const root = createRootRoute({ component: Shell, notFoundComponent: NotHere });
const home = createRoute({
  getParentRoute: () => root,
  path: '/',
  beforeLoad: () => {
    throw redirect({ to: '/standings' });
  },
});
const shelf = createRoute({
  getParentRoute: () => root,
  path: '/shelf',
  validateSearch: shelfSearch,
  component: ShelfView,
});
const model = createRoute({ getParentRoute: () => root, path: '/shelf/models/$modelId', component: ModelView });
const configuration = createRoute({
  getParentRoute: () => root,
  path: '/shelf/configurations/$configurationId',
  component: ConfigurationView,
});
const card = createRoute({
  getParentRoute: () => root,
  path: '/shelf/configurations/$configurationId/card',
  validateSearch: cardSearch,
  component: CardView,
});
const configure = createRoute({
  getParentRoute: () => root,
  path: '/shelf/configure',
  validateSearch: configureSearch,
  component: ConfigureView,
});
const difference = createRoute({
  getParentRoute: () => root,
  path: '/shelf/difference',
  validateSearch: differenceSearch,
  component: DifferenceView,
});
const checklists = createRoute({ getParentRoute: () => root, path: '/shelf/checklists', component: ChecklistsView });
const plans = createRoute({
  getParentRoute: () => root,
  path: '/plans',
  validateSearch: plansSearch,
  component: PlansView,
});
const bench = createRoute({
  getParentRoute: () => root,
  path: '/bench',
  validateSearch: benchSearch,
  component: BenchView,
});
const byHand = createRoute({
  getParentRoute: () => root,
  path: '/bench/by-hand',
  validateSearch: byHandSearch,
  component: NewSessionView,
});
const sheet = createRoute({ getParentRoute: () => root, path: '/bench/sheet/$sessionId', component: SheetView });
const suites = createRoute({ getParentRoute: () => root, path: '/suites', component: SuitesView });
const suite = createRoute({ getParentRoute: () => root, path: '/suites/$versionId', component: SuiteView });
const spreadsheet = createRoute({ getParentRoute: () => root, path: '/ledger/import', component: SpreadsheetView });
const ledger = createRoute({
  getParentRoute: () => root,
  path: '/ledger',
  validateSearch: ledgerSearch,
  component: LedgerView,
});
const compare = createRoute({
  getParentRoute: () => root,
  path: '/compare',
  validateSearch: compareSearch,
  component: CompareView,
});
const people = createRoute({ getParentRoute: () => root, path: '/people', component: PeopleView });
const log = createRoute({
  getParentRoute: () => root,
  path: '/people/log',
  validateSearch: logSearch,
  component: LogView,
});
const programs = createRoute({ getParentRoute: () => root, path: '/people/interface', component: InterfaceView });
const kept = createRoute({
  getParentRoute: () => root,
  path: '/kept',
  validateSearch: keptSearch,
  component: KeptView,
});
const standings = createRoute({
  getParentRoute: () => root,
  path: '/standings',
  validateSearch: standingsSearch,
  component: StandingsView,
});
const trends = createRoute({
  getParentRoute: () => root,
  path: '/trends',
  validateSearch: trendsSearch,
  component: TrendsView,
});

const writeUps = createRoute({
  getParentRoute: () => root,
  path: '/write-ups',
  validateSearch: keptSearch,
  component: WriteUpsView,
});
const writeUp = createRoute({ getParentRoute: () => root, path: '/write-ups/$writeUpId', component: WriteUpView });
const stage = createRoute({
  getParentRoute: () => root,
  path: '/write-ups/$writeUpId/stage',
  validateSearch: stageSearch,
  component: StageView,
});

export const router = createRouter({
  routeTree: root.addChildren([
    home,
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
});

declare module '@tanstack/react-router' {
  interface Register {
    router: typeof router;
  }
}
