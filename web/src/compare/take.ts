import { takeWords, type Take, TAKES, CONDITIONS } from '../format/takes.ts';
import { type Question } from './line/words.ts';
import type { ComparedBy } from '../writeup/question/asked.ts';

export const USUAL_MATTERS = 3;

/** Which sessions are taken: of all alike, or of the others under a condition and of the base as usual. */
export const TAKE_OPTIONS = [
  ...TAKES.map((t) => ({ value: takeKey(t, undefined), label: takeWords(t), detail: '' })),
  ...CONDITIONS.map((t) => ({ value: takeKey(t, 'USUAL'), label: takeWords(t), detail: 'the base in usual sessions' })),
];

export function takeKey(take: Take | undefined, baseTake: Take | undefined): string {
  return `${take ?? 'USUAL'} ${baseTake ?? ''}`;
}

export function takeOf(key: string): { take: Take | undefined; baseTake: Take | undefined } {
  const [take, baseTake] = key.split(' ') as [Take, Take | ''];
  return { take: take === 'USUAL' ? undefined : take, baseTake: baseTake === '' ? undefined : baseTake };
}

/** What is asked beside who is compared; nothing where all of it is the usual. */
export function byOf({ base: _base, with: _with, materiality, ...rest }: Question): ComparedBy | undefined {
  const by = { ...rest, ...(materiality === USUAL_MATTERS ? {} : { materiality }) };
  return Object.keys(by).length > 0 ? by : undefined;
}
