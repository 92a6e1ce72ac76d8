import { measure } from '../measure.ts';
import type { Measurement, Obstacle, RunOptions } from '../types.ts';

export const FRAME_WIDTH = 960;
export const FRAME_HEIGHT = 640;

/** What a test does in its frame. */
export interface PageWork {
  work: (rounds: number) => Promise<void> | void;
  perRound: number;
  /** Looks at what the last round left. */
  after?: () => void;
}

export function frameObstacle(): Obstacle | null {
  const able = typeof CSSStyleSheet === 'function' && 'replaceSync' in CSSStyleSheet.prototype && 'adoptedStyleSheets' in Document.prototype;
  return able ? null : { reason: 'NOT_SUPPORTED', words: 'This browser cannot share style sheets with a frame.' };
}

/** A frame of its own with a fixed size: the same layout work whatever the size of the display. */
export async function openFrame(host: HTMLElement, style: string, title: string, src?: string): Promise<{ frame: HTMLIFrameElement; window: Window & typeof globalThis; body: HTMLElement }> {
  const frame = document.createElement('iframe');
  frame.width = String(FRAME_WIDTH);
  frame.height = String(FRAME_HEIGHT);
  frame.title = title;
  const loaded = src && new Promise<void>((resolve, reject) => {
    frame.onload = () => resolve();
    frame.onerror = () => reject(new Error('the frame could not be loaded'));
  });
  if (src) frame.src = src;
  host.append(frame);
  await loaded;
  const window = frame.contentWindow as (Window & typeof globalThis) | null;
  if (!window) throw new Error('the frame could not be opened');
  const sheet = new window.CSSStyleSheet();
  sheet.replaceSync(style);
  window.document.adoptedStyleSheets = [sheet];
  return { frame, window, body: window.document.body };
}

/** Lets the browser draw and take messages; a timer would wait longer than needed. */
export function breathe(): Promise<void> {
  return new Promise((resolve) => {
    const channel = new MessageChannel();
    channel.port1.onmessage = () => resolve();
    channel.port2.postMessage(null);
  });
}

/** Measures in a fresh frame, which is gone afterwards. */
export async function measureInFrame(options: RunOptions, style: string, title: string, prepare: (body: HTMLElement) => PageWork): Promise<Measurement> {
  const { frame, body } = await openFrame(options.host, style, title);
  try {
    const { work, perRound, after } = prepare(body);
    const result = await measure(work, perRound, {
      timedMs: options.timedMs,
      clockResolutionMs: options.clockResolutionMs,
      now: () => performance.now(),
      between: async () => {
        await breathe();
        options.signal.throwIfAborted();
      },
    });
    after?.();
    return result;
  } finally {
    frame.remove();
  }
}
