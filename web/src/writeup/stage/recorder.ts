import { useCallback, useEffect, useRef, useState, type RefObject } from 'react';
import { save } from '../../export/save-file.ts';
import { paintSheet, prepareSheet } from './paint-sheet.ts';
import type { Paper } from './stage-state.ts';

export const [CLIP_WIDTH, CLIP_HEIGHT] = [1920, 1080];
const FRAMES = 60;
const BITS = 16_000_000;
/** Those that keep what is transparent come first. */
const TYPES = ['video/webm;codecs=vp9', 'video/webm;codecs=vp8', 'video/webm'];

const FRAMES_TO_SETTLE = 3;

async function frames(count: number): Promise<void> {
  for (let i = 0; i < count; i++) await new Promise((resolve) => requestAnimationFrame(resolve));
}

interface Running {
  recorder: MediaRecorder;
  frame: number;
}

/**
 * Records the stage as a clip with the browser's own recorder, from one press to the next, at 1920 by 1080 whatever the
 * size of the window. On the clear paper what is behind the words and bars stays transparent.
 */
export function useRecorder(title: string, sheet: RefObject<HTMLElement | null>, paper: Paper) {
  const running = useRef<Running>(undefined);
  /** Until the first picture is painted: a second press then begins no second clip. */
  const beginning = useRef(false);
  const papered = useRef(paper);
  const [recording, setRecording] = useState(false);
  const [refused, setRefused] = useState<string>();
  useEffect(() => {
    papered.current = paper;
  }, [paper]);
  const stop = useCallback(() => {
    if (!running.current) return;
    const ending = running.current;
    setRecording(false);
    running.current = undefined;
    // What stands there now is in it, too.
    void frames(FRAMES_TO_SETTLE).then(() => {
      cancelAnimationFrame(ending.frame);
      ending.recorder.stop();
    });
  }, []);
  useEffect(() => stop, [stop]);
  const record = useCallback(async () => {
    if (running.current) {
      stop();
      return;
    }
    if (beginning.current) return;
    const type = TYPES.find((t) => typeof MediaRecorder !== 'undefined' && MediaRecorder.isTypeSupported(t));
    const canvas = document.createElement('canvas');
    if (!type || !('captureStream' in canvas)) {
      setRefused(
        'This browser cannot record a clip. Record the screen instead; the key colour can be taken out there.',
      );
      return;
    }
    beginning.current = true;
    canvas.width = CLIP_WIDTH;
    canvas.height = CLIP_HEIGHT;
    const context = canvas.getContext('2d')!;
    // A drawing that cannot be prepared is left out of the clip; the rest of it is there.
    if (sheet.current) await prepareSheet(sheet.current).catch(() => undefined);
    const parts: Blob[] = [];
    const own = { frame: 0 };
    const paint = () => {
      const stage = sheet.current?.parentElement;
      if (sheet.current && stage) {
        const colour = papered.current === 'clear' ? null : getComputedStyle(stage).backgroundColor;
        paintSheet(sheet.current, context, CLIP_WIDTH, colour);
      } else {
        context.fillStyle = '#000';
        context.fillRect(0, 0, CLIP_WIDTH, CLIP_HEIGHT);
      }
      own.frame = requestAnimationFrame(paint);
    };
    const stream = canvas.captureStream(FRAMES);
    // The first picture of a stream is what the canvas was before: the clip begins behind it.
    paint();
    await frames(FRAMES_TO_SETTLE);
    const recorder = new MediaRecorder(stream, { mimeType: type, videoBitsPerSecond: BITS });
    recorder.ondataavailable = (e) => parts.push(e.data);
    recorder.onstop = () => {
      const name = title
        .replace(/[^\w-]+/g, '-')
        .toLowerCase()
        .slice(0, 80);
      save(new Blob(parts, { type: 'video/webm' }), `${name}.webm`);
    };
    beginning.current = false;
    running.current = Object.assign(own, { recorder });
    recorder.start(1000);
    setRecording(true);
    setRefused(undefined);
  }, [title, sheet, stop]);
  return { record, recording, refused };
}
