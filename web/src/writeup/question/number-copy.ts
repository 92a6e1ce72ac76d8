import type { NumberQuestion, Numbers } from './questions.ts';

const COPIED = /\[([^\]]*)\]\(yarrowmark:([A-Za-z0-9+/=]+)\)/g;

/** A number as it is copied in another view, for a text of a write-up to take in. */
export function copiedNumber(words: string, question: NumberQuestion): string {
  return `[${words}](yarrowmark:${btoa(JSON.stringify(question))})`;
}

function isQuestion(value: unknown): value is NumberQuestion {
  if (typeof value !== 'object' || value === null) return false;
  const q = value as Record<string, unknown>;
  const id = (v: unknown) => Number.isSafeInteger(v) && Number(v) > 0;
  if (!id(q.configuration)) return false;
  switch (q.of) {
    case 'value':
      return id(q.metric);
    case 'ratio':
      return id(q.metric) && id(q.base);
    case 'overall':
      return id(q.base);
    case 'fact':
      return typeof q.key === 'string';
    default:
      return false;
  }
}

function questionOf(code: string): NumberQuestion | undefined {
  try {
    const value: unknown = JSON.parse(atob(code));
    return isQuestion(value) ? value : undefined;
  } catch {
    return undefined;
  }
}

/**
 * A pasted text with its copied numbers as numbers of this one.
 *
 * @returns undefined where there is none in it, so that it is pasted as any other
 */
export function pasted(
  text: string,
  numbers: Numbers | undefined,
  next: (numbers: Numbers | undefined) => string,
): { text: string; numbers: Numbers } | undefined {
  let now = numbers ?? {};
  let found = false;
  const put = text.replace(COPIED, (_, words: string, code: string) => {
    const question = questionOf(code);
    if (!question) return words;
    found = true;
    const id = next(now);
    now = { ...now, [id]: question };
    return `[${words}](number:${id})`;
  });
  return found ? { text: put, numbers: now } : undefined;
}
