import type { KnownDevice } from './outbox.ts';

interface KnownBeforeProps {
  known: KnownDevice;
  onThat: () => void;
  onForget: () => void;
}

/** What this browser's device was the last time, as a proposal. */
export function KnownBefore({ known, onThat, onForget }: KnownBeforeProps) {
  return (
    <div className="mb-4 border-l-2 border-gold pl-3">
      <p>
        This browser was here before, as{' '}
        <b className="font-semibold">
          {known.maker} {known.name}
        </b>
        {known.unit === null ? '' : `, ${known.unit}`}.
      </p>
      <button type="button" className="button mt-2" onClick={onThat}>
        It is that one
      </button>
      <p className="small mt-1">
        Only this browser keeps a note of it.{' '}
        <button type="button" className="link" onClick={onForget}>
          Forget it
        </button>
      </p>
    </div>
  );
}
