import { agrees, contradiction, references, type LiveNumber } from '../question/number-words.ts';
import type { NumberNow } from '../figure/use-answers.ts';

/** Beside a text: where each of its numbers comes from, and which ones do not agree any more. */
export function NumbersMargin({
  text,
  numbers,
  onTake,
  onDrop,
}: {
  text: string;
  numbers: Record<string, NumberNow>;
  onTake: (id: string, words: string) => void;
  onDrop: (id: string) => void;
}) {
  return (
    <ul className="flex flex-col gap-1.5">
      {references(text).map((r, i) => {
        const of = numbers[r.id];
        return (
          <li key={`${r.id}-${i}`}>
            {of?.state === 'known' && agrees(r.words, of.now) ? (
              <>
                <b className="font-semibold text-ink">{r.words}</b> {of.now.says}
                <Otherwise around={r.around} now={of.now} />
              </>
            ) : of?.state === 'known' ? (
              <>
                <b className="font-semibold text-plum">{r.words}</b> is now {of.now.forms[0]}: {of.now.says}{' '}
                {of.now.forms.map((form) => (
                  <button key={form} className="link mr-2" onClick={() => onTake(r.id, form)}>
                    take {form}
                  </button>
                ))}
              </>
            ) : of?.state === 'waiting' ? (
              <>
                <b className="font-semibold text-ink">{r.words}</b> is looked up
              </>
            ) : (
              <>
                <b className="font-semibold text-plum">{r.words}</b> stands for nothing any more:{' '}
                {of?.state === 'gone' ? of.why : 'its question is lost'}.{' '}
                <button className="link" onClick={() => onDrop(r.id)}>
                  keep the words alone
                </button>
              </>
            )}
          </li>
        );
      })}
    </ul>
  );
}

function Otherwise({ around, now }: { around: string; now: LiveNumber }) {
  const says = contradiction(around, now);
  return says === undefined ? null : <span className="block text-plum">The text {says}.</span>;
}
