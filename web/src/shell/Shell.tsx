import { Link, Outlet, useLocation, useNavigate } from '@tanstack/react-router';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { useAccess } from '../access/AccessGate.tsx';
import { useSendUnsent } from '../sheet/useTyped.ts';
import { useUnsentReady } from '../unsent/use-unsent.ts';
import { ConnectionBanner } from './ConnectionBanner.tsx';
import { useGo, useKeys } from './keys.ts';
import { TableStrip } from './TableStrip.tsx';
import { useLastVisit } from './use-last-visit.ts';
import { useDroppedTable } from './use-dropped-table.ts';
import yarrow from './yarrow.svg';

/** What opens above the view comes after it. */
const LATER = {
  search: () => import('./Search.tsx'),
  help: () => import('./KeysHelp.tsx'),
  menu: () => import('./PersonMenu.tsx'),
};
const Search = lazy(async () => ({ default: (await LATER.search()).Search }));
const KeysHelp = lazy(async () => ({ default: (await LATER.help()).KeysHelp }));
const PersonMenu = lazy(async () => ({ default: (await LATER.menu()).PersonMenu }));

/** The line of work, in the order the work happens. A view that is not built is not in it. */
const LINE = [
  { to: '/today', name: 'Today', letter: 'd' },
  { to: '/shelf', name: 'Shelf', letter: 'h' },
  { to: '/suites', name: 'Suites', letter: 'u' },
  { to: '/plans', name: 'Plans', letter: 'p' },
  { to: '/bench', name: 'Bench', letter: 'b' },
  { to: '/ledger', name: 'Ledger', letter: 'l' },
  { to: '/compare', name: 'Compare', letter: 'c' },
  { to: '/standings', name: 'Standings', letter: 's' },
  { to: '/trends', name: 'Trends', letter: 't' },
  { to: '/write-ups', name: 'Write-ups', letter: 'w' },
] as const;

export function Shell() {
  const access = useAccess();
  useSendUnsent();
  useDroppedTable();
  useLastVisit();
  // A form begins with what was typed into it before, so nothing is opened until that is known.
  const unsentReady = useUnsentReady();
  const navigate = useNavigate();
  const [searching, setSearching] = useState(false);
  const [helping, setHelping] = useState(false);
  // Fetched before they are asked for, so that they open while the server is away.
  useEffect(() => {
    for (const fetchOne of Object.values(LATER)) void fetchOne().catch(() => undefined);
  }, []);
  useKeys([
    { key: '/', does: 'Search, and go to anything', run: () => setSearching(true) },
    { key: '?', does: 'Show these keys, and what our words mean', run: () => setHelping(true) },
    { key: 'f', does: 'Facts of the table side by side', run: () => void navigate({ to: '/shelf/difference' }) },
  ]);
  const nav = useRef<HTMLElement>(null);
  const path = useLocation({ select: (at) => at.pathname });
  // On a phone the line of work is longer than the screen: where one is stays in sight.
  useEffect(() => {
    nav.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [path]);
  useGo(Object.fromEntries(LINE.map((view) => [view.letter, () => void navigate({ to: view.to })])));

  return (
    <div className="grid h-dvh grid-cols-[minmax(0,1fr)] grid-rows-[auto_1fr_auto]">
      <div>
        <a
          href="#view"
          className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:px-3 focus:py-2"
          onClick={(event) => {
            event.preventDefault();
            document.getElementById('view')?.focus();
          }}
        >
          Skip to the view
        </a>
        <header className="flex flex-wrap items-center gap-x-6 border-b border-hair bg-sheet px-5 max-lg:gap-x-4">
          <Link to="/today" className="flex items-center gap-2 font-title text-[19px] font-semibold">
            <img src={yarrow} alt="" className="h-5 w-5" /> Yarrowmark
          </Link>
          <nav
            aria-label="Main"
            ref={nav}
            className="order-3 -mx-2 flex min-w-0 basis-full overflow-x-auto [scrollbar-width:none] lg:order-none lg:mx-0 lg:flex-1 lg:basis-0"
          >
            {LINE.map((view, i) => (
              <span key={view.to} className="flex items-center">
                {i > 0 && <span aria-hidden="true" className="hidden h-px w-2 bg-hair xl:block" />}
                <Link
                  to={view.to}
                  className="border-b-2 px-2 pt-1 pb-1 whitespace-nowrap lg:px-1.5 xl:px-3 lg:pt-3 lg:pb-2.5 hover:text-ink"
                  activeProps={{ className: 'border-gold font-semibold text-ink', 'aria-current': 'page' }}
                  inactiveProps={{ className: 'border-transparent text-ink-2' }}
                >
                  {view.name}
                </Link>
              </span>
            ))}
          </nav>
          <button className="small ml-auto py-1.5 lg:ml-0" onClick={() => setSearching(true)}>
            Search <kbd className="pointer-coarse:hidden">/</kbd>
          </button>
          <Suspense fallback={<span className="small max-w-40 truncate py-1.5">{access.lab}</span>}>
            <PersonMenu lab={access.lab} onHelp={() => setHelping(true)} />
          </Suspense>
        </header>
        <ConnectionBanner />
      </div>
      <main id="view" tabIndex={-1} className="relative min-h-0 outline-none overflow-y-auto px-5 pt-4 pb-6">
        {unsentReady && <Outlet />}
      </main>
      <TableStrip />
      <Suspense fallback={null}>
        {searching && <Search open onClose={() => setSearching(false)} views={LINE} />}
        {helping && <KeysHelp open onClose={() => setHelping(false)} views={LINE} />}
      </Suspense>
    </div>
  );
}
