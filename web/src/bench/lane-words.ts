import { countdown, duration } from '../format/format.ts';
import type { Lane } from './useBench.ts';

/** What a device does, in a word or two. */
export function phasePill(lane: Lane): { words: string; tone: 'go' | 'wait' | 'bad' | 'off' } {
  if (lane.command === 'STOP' && lane.phase !== 'DONE' && lane.phase !== 'STOPPED')
    return { words: 'stopping', tone: 'wait' };
  if (lane.command === 'PAUSE' && lane.phase === 'RUNNING') return { words: 'pausing after this run', tone: 'wait' };
  switch (lane.phase) {
    case 'WAITING':
    case 'CLEARED':
      return { words: 'waiting', tone: 'off' };
    case 'JOINED':
      return { words: 'being set up', tone: 'wait' };
    case 'RUNNING':
      return { words: 'running', tone: 'go' };
    case 'COOLING':
      return { words: 'cooling', tone: 'wait' };
    case 'PAUSED':
      return { words: 'paused', tone: 'wait' };
    case 'BY_HAND':
      return { words: 'your turn', tone: 'wait' };
    case 'COOL_UNTIL':
      return { words: 'cooling', tone: 'wait' };
    case 'HIDDEN':
      return { words: 'page hidden', tone: 'bad' };
    case 'DONE':
      return { words: 'finished', tone: 'go' };
    case 'STOPPED':
      return { words: 'stopped', tone: 'off' };
  }
}

/** What it does now, and how long it still takes. @param now the server's time */
export function nowInWords(lane: Lane, now: number): string {
  const at = lane.tests.find((t) => t.testId === lane.phaseTestId);
  const test = at?.name;
  const run = lane.phaseRun ? `run ${lane.phaseRun} of ${at?.runs.length ?? lane.runs}` : '';
  const left = `About ${duration(lane.msLeft)} left`;
  switch (lane.phase) {
    case 'JOINED':
      return 'Its model is being chosen on the device.';
    case 'RUNNING':
      return test ? `${test}, ${run}. ${left}.` : `Getting ready. ${left}.`;
    case 'COOLING': {
      const until = lane.phaseUntil ? new Date(lane.phaseUntil).getTime() - now : 0;
      return `Next: ${test ?? ''}, ${run}${until > 0 ? `, in ${countdown(until)}` : ''}. ${left}.`;
    }
    case 'BY_HAND':
      return `It waits for ${test ?? 'a test'}, which you carry out${at?.todo ? `: ${at.todo}` : ''}. It goes on by itself when the last score is typed. ${left}.`;
    case 'COOL_UNTIL':
      return `Until it is at most ${at?.pauseUntil ?? ''} °C, before ${test ?? 'the next test'}, ${run}. Say so when it is. ${left}.`;
    case 'PAUSED':
      return `Paused before ${test ?? 'the next test'}, ${run}. ${left}.`;
    case 'HIDDEN':
      return `The page is hidden or its screen asleep. It goes on with ${test ?? 'the next test'}, ${run}, as soon as it is back.`;
    case 'DONE':
      return 'Every run is in the ledger.';
    case 'STOPPED':
      return lane.late > 0 ? 'What it had delivered before is in the ledger.' : 'What was finished is in the ledger.';
    default:
      return '';
  }
}
