import { useEffect, useRef, useState } from 'react';
import { duration } from '../format/format.ts';
import { chime } from '../ui/chime.ts';
import type { Lane } from './useBench.ts';

const isOver = (lane: Lane) => lane.phase === 'DONE' || lane.phase === 'STOPPED';
const nameOf = (lane: Lane) =>
  lane.configuration ? `${lane.configuration.maker} ${lane.configuration.model}` : (lane.device ?? lane.code);

/** Devices that were going on when last looked at, and are done now. Those that were not there before are no news. */
export function newlyDone(before: ReadonlyMap<number, boolean>, lanes: readonly Lane[]): Lane[] {
  return lanes.filter((lane) => isOver(lane) && before.get(lane.seatId) === false);
}

export function doneWords(lanes: readonly Lane[]): string {
  return lanes
    .map((lane) => `${nameOf(lane)} ${lane.phase === 'DONE' ? 'has finished its round' : 'has stopped'}.`)
    .join(' ');
}

/** What a tab says of the bench: how long the next one takes, or how many are done. */
export function benchTitle(lanes: readonly Lane[]): string {
  const going = lanes.filter((lane) => lane.phase !== 'WAITING' && lane.phase !== 'JOINED' && !isOver(lane));
  if (going.length > 0) {
    const turn = going.filter((lane) => lane.phase === 'BY_HAND' || lane.phase === 'HIDDEN').length;
    const next = duration(Math.min(...going.map((lane) => lane.msLeft)));
    return `${turn > 0 ? `${turn} waiting for you, ` : ''}${next} left · Bench`;
  }
  const done = lanes.filter(isOver).length;
  return done > 0 ? `${done} done · Bench` : 'Bench';
}

/** Says when a device is done, in words for a live region, and with a sound where that is wanted. */
export function useDone(lanes: readonly Lane[] | undefined): string {
  const before = useRef<ReadonlyMap<number, boolean> | null>(null);
  const [words, setWords] = useState('');
  useEffect(() => {
    if (!lanes) return;
    const done = newlyDone(before.current ?? new Map<number, boolean>(), lanes);
    before.current = new Map(lanes.map((lane) => [lane.seatId, isOver(lane)]));
    if (done.length === 0) return;
    const said = doneWords(done);
    // What is said follows what arrived, so it is set here.

    setWords(said);
    chime(said);
  }, [lanes]);
  return words;
}
