import type { Schemas } from '../api/client.ts';

export type Take = NonNullable<Schemas['Standings']['take']>;
export const TAKES = [
  'USUAL',
  'ALL',
  'RECORDED',
  'ON_BATTERY',
  'OTHER_WORK',
  'UNFINISHED',
] as const satisfies readonly Take[];
export const CONDITIONS = ['RECORDED', 'ON_BATTERY', 'OTHER_WORK', 'UNFINISHED'] as const satisfies readonly Take[];
const WORDS: Record<Take, string> = {
  USUAL: 'in usual sessions',
  ALL: 'in every session',
  RECORDED: 'while the screen was recorded',
  ON_BATTERY: 'on battery',
  OTHER_WORK: 'with other work going on',
  UNFINISHED: 'in sessions that were never finished',
};

/** Which sessions are taken, as a part of a sentence. */
export function takeWords(take: Take): string {
  return WORDS[take];
}

/** "2 sessions do not count by default". */
export function notCountedWords(n: number): string {
  return `${n} ${n === 1 ? 'session does' : 'sessions do'} not count by default`;
}
