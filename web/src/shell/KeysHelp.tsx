import { Panel } from '../ui/Panel.tsx';
import { keysNow } from './keys.ts';

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
    <Panel open={open} onClose={onClose} title="Keys of this view">
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
    </Panel>
  );
}
