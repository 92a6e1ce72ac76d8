import { memo, type ReactNode } from 'react';
import Markdown from 'react-markdown';
import { agrees } from '../question/number-words.ts';
import type { NumberNow } from '../figure/use-answers.ts';

const NUMBER = 'number:';

/** Text with marks as it will stand in the page, its numbers underlined: gold where they agree, plum where they do not any more. */
export const Marked = memo(function Marked({
  text,
  numbers,
  line = false,
}: {
  text: string;
  numbers: Record<string, NumberNow>;
  /** A single line: without its paragraph. */
  line?: boolean;
}) {
  return (
    <Markdown
      urlTransform={(url) => (url.startsWith(NUMBER) || /^(https?:|mailto:)/.test(url) ? url : '')}
      components={{
        a: ({ href, children }) =>
          href?.startsWith(NUMBER) ? (
            <Reference of={numbers[href.slice(NUMBER.length)]}>{children}</Reference>
          ) : (
            <a href={href} className="link" rel="noopener noreferrer" onClick={(e) => e.stopPropagation()}>
              {children}
            </a>
          ),
        // A picture from elsewhere is not shown, here as in the page.
        img: ({ alt }) => <>{alt}</>,
        ...(line ? { p: ({ children }: { children?: ReactNode }) => <>{children}</> } : {}),
      }}
    >
      {text}
    </Markdown>
  );
});

function Reference({ of, children }: { of: NumberNow | undefined; children: ReactNode }) {
  // A number is named by plain words: what is marked inside of it is none of them.
  const words = [children]
    .flat()
    .filter((c) => typeof c === 'string')
    .join('');
  const off = of === undefined || of.state === 'gone' || (of.state === 'known' && !agrees(words, of.now));
  return (
    <span
      className={`border-b-[1.5px] font-semibold ${off && of?.state !== 'waiting' ? 'border-plum text-plum' : 'border-gold'}`}
      title={of?.state === 'known' ? of.now.says : of?.state === 'gone' ? of.why : undefined}
    >
      {children}
    </span>
  );
}
