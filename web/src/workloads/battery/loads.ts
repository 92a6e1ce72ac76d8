import type { RunOptions } from '../types.ts';
import { seeded } from '../random.ts';
import worker from './work.worker.ts?worker&url';

/** What the device does meanwhile. Each begins and answers how it ends; none measures anything. */
export type Load = (options: RunOptions) => Promise<() => void>;

const WORDS = 'moor tern dune heath sedge gull reed marsh alder lapwing fen plover brook dawn tide wader bank shore willow mist'.split(' ');
const READ_MS = 20_000;
const BROWSE_MS = 10_000;
const SCROLL_MS = 1_000;
const SEED = 4711;

const STYLE = `
  * { box-sizing: border-box }
  body { margin: 0; background: #fff; color: #111; font: 17px/1.5 serif }
  main { max-width: 640px; margin: 0 auto; padding: 24px }
  table { width: 100%; border-collapse: collapse; font: 14px sans-serif } td { border-bottom: 1px solid #ddd; padding: 4px }
  canvas { width: 100%; height: auto; display: block; margin: 12px 0 }`;

function sentence(next: () => number): string {
  const words = Array.from({ length: 8 + Math.floor(next() * 9) }, () => WORDS[Math.floor(next() * WORDS.length)]!);
  const text = words.join(' ');
  return `${text[0]!.toUpperCase()}${text.slice(1)}.`;
}

const paragraph = (next: () => number) => Array.from({ length: 6 }, () => sentence(next)).join(' ');

/** A frame as wide as the page lets it, so that a phone lights as much of its display as it would. */
function frame(host: HTMLElement, title: string): { view: HTMLIFrameElement; window: Window; main: HTMLElement } {
  const view = document.createElement('iframe');
  view.title = title;
  view.style.cssText = 'width: 100%; height: 70vh; border: 0; background: #fff';
  host.append(view);
  const window = view.contentWindow as Window & typeof globalThis;
  const sheet = new window.CSSStyleSheet();
  sheet.replaceSync(STYLE);
  window.document.adoptedStyleSheets = [sheet];
  const main = window.document.createElement('main');
  window.document.body.append(main);
  return { view, window, main };
}

/** Scrolls by a screen, and from the end back to the beginning. */
function turn(window: Window): void {
  const { scrollHeight, clientHeight } = window.document.documentElement;
  const at = window.scrollY + clientHeight * 0.9;
  window.scrollTo(0, at + clientHeight / 2 > scrollHeight ? 0 : at);
}

const reading: Load = async ({ host }) => {
  const { view, window, main } = frame(host, 'A page of text');
  const next = seeded(SEED);
  for (let i = 0; i < 60; i++) main.append(Object.assign(window.document.createElement('p'), { textContent: paragraph(next) }));
  const timer = setInterval(() => turn(window), READ_MS);
  return () => {
    clearInterval(timer);
    view.remove();
  };
};

function picture(document: Document, next: () => number): HTMLCanvasElement {
  const canvas = Object.assign(document.createElement('canvas'), { width: 640, height: 360 });
  const context = canvas.getContext('2d');
  if (context)
    for (let i = 0; i < 240; i++) {
      context.fillStyle = `hsl(${next() * 360} 60% ${30 + next() * 50}%)`;
      context.fillRect(next() * 640, next() * 360, next() * 90, next() * 60);
    }
  return canvas;
}

const browsing: Load = async ({ host }) => {
  const { view, window, main } = frame(host, 'Pages that come and go');
  const next = seeded(SEED);
  const { document } = window;
  const build = () => {
    main.replaceChildren();
    window.scrollTo(0, 0);
    for (let i = 0; i < 5; i++) {
      main.append(Object.assign(document.createElement('h2'), { textContent: sentence(next) }), picture(document, next), Object.assign(document.createElement('p'), { textContent: paragraph(next) }));
      const table = document.createElement('table');
      for (let row = 0; row < 12; row++) {
        const line = table.insertRow();
        for (let cell = 0; cell < 4; cell++) line.insertCell().textContent = String(Math.floor(next() * 10_000));
      }
      main.append(table);
    }
  };
  build();
  const pages = setInterval(build, BROWSE_MS);
  const scrolls = setInterval(() => window.scrollBy({ top: 400, behavior: 'smooth' }), SCROLL_MS);
  return () => {
    clearInterval(pages);
    clearInterval(scrolls);
    view.remove();
  };
};

const CLIP_MS = 10_000;
const CLIP_FPS = 30;
const BITS = 4_000_000;

/** The first that the browser's own recorder makes. */
export function clipType(): string | undefined {
  if (typeof MediaRecorder !== 'function') return undefined;
  return ['video/webm;codecs=vp9', 'video/webm;codecs=vp8', 'video/mp4;codecs=avc1.42E01E', 'video/webm', 'video/mp4'].find((type) => MediaRecorder.isTypeSupported(type));
}

/** Ten seconds of moving shapes, recorded as they are drawn. */
async function record(signal: AbortSignal): Promise<Blob> {
  const canvas = Object.assign(document.createElement('canvas'), { width: 1280, height: 720 });
  const context = canvas.getContext('2d');
  if (!context) throw new Error('This browser gave no canvas to make a clip with.');
  const stream = canvas.captureStream(CLIP_FPS);
  const recorder = new MediaRecorder(stream, { mimeType: clipType(), videoBitsPerSecond: BITS });
  const parts: Blob[] = [];
  recorder.ondataavailable = (event) => void parts.push(event.data);
  const next = seeded(SEED);
  const shapes = Array.from({ length: 60 }, () => ({ x: next() * 1280, y: next() * 720, dx: next() * 12 - 6, dy: next() * 12 - 6, hue: next() * 360 }));
  const draw = setInterval(() => {
    context.fillStyle = '#203040';
    context.fillRect(0, 0, 1280, 720);
    for (const shape of shapes) {
      shape.x = (shape.x + shape.dx + 1280) % 1280;
      shape.y = (shape.y + shape.dy + 720) % 720;
      context.fillStyle = `hsl(${shape.hue} 70% 60%)`;
      context.fillRect(shape.x, shape.y, 90, 60);
    }
  }, 1000 / CLIP_FPS);
  try {
    await new Promise<void>((resolve, reject) => {
      const stop = () => reject(signal.reason as Error);
      signal.addEventListener('abort', stop, { once: true });
      if (signal.aborted) stop();
      recorder.onstop = () => resolve();
      recorder.onerror = () => reject(new Error('The clip could not be recorded.'));
      recorder.start();
      setTimeout(() => recorder.state === 'recording' && recorder.stop(), CLIP_MS);
    });
  } finally {
    clearInterval(draw);
    if (recorder.state !== 'inactive') recorder.stop();
    stream.getTracks().forEach((track) => track.stop());
  }
  const clip = new Blob(parts, { type: recorder.mimeType });
  if (clip.size === 0) throw new Error('The recorder of this browser made an empty clip.');
  return clip;
}

const video: Load = async ({ host, signal }) => {
  const url = URL.createObjectURL(await record(signal));
  const view = Object.assign(document.createElement('video'), { src: url, loop: true, muted: true, playsInline: true });
  view.style.cssText = 'width: 100%; background: #000';
  host.append(view);
  const end = () => {
    view.remove();
    URL.revokeObjectURL(url);
  };
  try {
    await view.play();
  } catch (error) {
    end();
    throw new Error(`The clip does not play: ${error instanceof Error ? error.message : String(error)}`);
  }
  return end;
};

const work: Load = async ({ host }) => {
  const workers = Array.from({ length: Math.max(1, navigator.hardwareConcurrency || 1) }, () => new Worker(worker, { type: 'module' }));
  const words = Object.assign(document.createElement('p'), { textContent: `${workers.length} workers at full speed.` });
  host.append(words);
  return () => {
    workers.forEach((w) => w.terminate());
    words.remove();
  };
};

/** Sits on its charger with the screen on. */
const rest: Load = async () => () => undefined;

export const LOADS: Record<string, Load> = { reading, browsing, video, work, charge: rest };
export const WORKER = worker;
