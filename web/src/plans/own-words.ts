import type { Schemas } from '../api/client.ts';
import { byItself } from '../suites/suites.ts';
import { duration } from '../format/format.ts';
import type { PlanItem } from './draft.ts';

/** What a test wants otherwise than its plan. */
export function ownWords(item: PlanItem, test: Pick<Schemas['TestRow'], 'builtIn' | 'command'> | undefined): string[] {
  return [
    item.runs !== undefined && `${item.runs} ${item.runs === 1 ? 'run' : 'runs'}`,
    item.pauseUntil !== undefined && `until ${item.pauseUntil} °C`,
    item.pauseMs !== undefined && `${item.pauseMs / 1000} s pause`,
    item.timedMs !== undefined && `timed for ${duration(item.timedMs)}`,
    item.allowedMs !== undefined && `at most ${duration(item.allowedMs)}`,
    item.nice && 'nice to have',
    test && !byItself(test) && 'by hand',
  ].filter((w) => typeof w === 'string');
}
