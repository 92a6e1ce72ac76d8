import { CopyButton } from '../ui/CopyButton.tsx';
import { moment } from '../format/format.ts';

/** A secret that is shown now and never again. */
export function OnceShown({ what, text, until }: { what: string; text: string; until: string }) {
  return (
    <div role="status" className="mt-2 border-l-2 border-gold pl-3">
      <p>
        {what}. It is shown this once, and good until {moment(until)}.
      </p>
      <p className="flex flex-wrap items-baseline gap-x-3">
        <code className="min-w-0 [overflow-wrap:anywhere]">{text}</code>
        <CopyButton text={text} what="it" />
      </p>
    </div>
  );
}
