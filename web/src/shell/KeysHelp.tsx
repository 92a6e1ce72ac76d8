import { Link } from '@tanstack/react-router';
import { Panel } from '../ui/Panel.tsx';
import { keysNow } from './keys.ts';

const GLOSSARY: readonly (readonly [string, string])[] = [
  ['Shelf', 'Models, their units, and each configuration a unit was in.'],
  ['Bench', 'Where devices join with a code and are measured.'],
  ['Ledger', 'Every single reading, never changed in silence.'],
  ['The table', 'The strip below: the configurations that every view follows, each with its mark.'],
  ['Base', 'The configuration that the others are compared with; it is 100.'],
  ['Rail', 'An axis of one test. Ticks are all that were tested, marks those on the table; right is better.'],
  ['Place', 'The order by index, and small beside it what the place could be.'],
  ['95 % interval', 'Where the true value lies in 95 of 100 such measurements.'],
  ['Capped', 'A display’s limit capped the value, so the true one is at least this.'],
  ['Stale', 'A newer suite version or firmware is in force than the one it was measured with.'],
  ['Provisional', 'It has results for less than half of the weight, so it gets no place.'],
  ['Set aside', 'A reading that no longer counts, with a reason; it stays in the ledger and can be undone.'],
  ['Borrowed noise', 'With few runs of its own, how repeatable a test is comes from the other configurations.'],
  [
    'Probably',
    'It was run once, and how repeatable the test is has not been measured here: what is usual for such tests is taken.',
  ],
  ['Too close to call', 'The interval reaches both ways; what would settle it stands beside it.'],
  ['Day to day', 'How much a device differs on another day: as is usual for tests, or as devices here showed.'],
];

export function KeysHelp({
  open,
  onClose,
  views,
}: {
  open: boolean;
  onClose: () => void;
  views: readonly { name: string; letter: string }[];
}) {
  return (
    <Panel open={open} onClose={onClose} title="Keys of this view, and our words">
      <dl className="mt-3 grid grid-cols-[90px_1fr] gap-y-1.5">
        {open &&
          keysNow().map((action) => (
            <div key={action.key + action.does} className="contents">
              <dt>
                <kbd>{action.key}</kbd>
              </dt>
              <dd>{action.does}</dd>
            </div>
          ))}
        {views.map((view) => (
          <div key={view.name} className="contents">
            <dt>
              <kbd>g</kbd> <kbd>{view.letter}</kbd>
            </dt>
            <dd>Go to {view.name}</dd>
          </div>
        ))}
      </dl>
      <h3 className="mt-5 border-b border-hair pb-1">What our words mean</h3>
      <dl className="mt-2 grid grid-cols-[130px_1fr] gap-y-1.5 max-sm:grid-cols-1 max-sm:gap-y-0.5">
        {GLOSSARY.map(([word, meaning]) => (
          <div key={word} className="contents">
            <dt className="font-semibold">{word}</dt>
            <dd className="text-ink-2 max-sm:mb-1.5">{meaning}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-5">
        <Link to="/people/interface" className="link" onClick={onClose}>
          The interface for programs
        </Link>
      </p>
    </Panel>
  );
}
