import { clockResolution } from '../../workloads/clock.ts';
import { browserFromText, roundsThreads, systemFromText } from './agent-text.ts';

/** One fact about this device, with the key of the server's vocabulary and the value in its base unit. */
export interface DetectedFact {
  key: string;
  value: string;
  label: string;
  shown: string;
}

export interface Detected {
  facts: DetectedFact[];
  onMains: boolean | null;
  batteryLevel: number | null;
  clockResolutionMs: number;
}

interface AgentData {
  getHighEntropyValues(hints: string[]): Promise<{
    architecture?: string;
    bitness?: string;
    model?: string;
    platform?: string;
    platformVersion?: string;
    fullVersionList?: { brand: string; version: string }[];
  }>;
}
type NavigatorMore = Navigator & {
  userAgentData?: AgentData;
  deviceMemory?: number;
  getBattery?: () => Promise<{ charging: boolean; level: number }>;
};

const USUAL_REFRESH = [
  30, 40, 48, 50, 60, 72, 75, 85, 90, 100, 120, 144, 155, 160, 165, 170, 180, 200, 240, 280, 300, 360, 480, 500,
];
/** How far what was measured may lie from a usual rate. */
const NEAR_USUAL = 0.06;
const FRAMES = 40;

/** Finds out what a browser tells about its device. Everything is feature-tested; what is not told is left out. */
export async function detect(): Promise<Detected> {
  const agent = navigator as NavigatorMore;
  const found: DetectedFact[] = [];
  const add = (key: string, label: string, value: string | undefined, shown = value) => {
    if (value) found.push({ key, value: value.slice(0, 500), label, shown: shown ?? value });
  };
  const told = await agent.userAgentData
    ?.getHighEntropyValues(['architecture', 'bitness', 'model', 'platformVersion', 'fullVersionList'])
    .catch(() => undefined);
  const browser = told?.fullVersionList
    ?.filter((b) => !/not.?a.?brand/i.test(b.brand))
    .sort((a, b) => b.brand.length - a.brand.length)[0];
  const read = browser ? { name: browser.brand, version: browser.version } : browserFromText(navigator.userAgent);
  const system = systemFromText(navigator.userAgent);
  add('browser.name', 'Browser', read?.name);
  add('browser.version', 'Browser version', read?.version);
  add('os.name', 'Operating system', told?.platform || system?.name);
  add('os.version', 'System version', told ? told.platformVersion : system?.version);
  add(
    'processor.architecture',
    'Architecture',
    told?.architecture ? `${told.architecture}${told.bitness ? ` ${told.bitness} bit` : ''}` : system?.architecture,
  );
  const threads = navigator.hardwareConcurrency ? String(navigator.hardwareConcurrency) : undefined;
  if (roundsThreads(navigator.userAgent)) add('browser.threads', 'Logical processors, as the browser says', threads);
  else add('processor.threads', 'Logical processors', threads);
  if (agent.deviceMemory) {
    add('memory.reported', 'Memory, at least', String(agent.deviceMemory * 2 ** 30), `${agent.deviceMemory} GB`);
  }
  const graphics = graphicsNames();
  add('graphics.renderer', 'Graphics', graphics?.renderer);
  add('graphics.vendor', 'Graphics maker', graphics?.vendor);
  if (graphics && drawnBySoftware(graphics.renderer))
    add('graphics.software', 'Graphics', 'true', 'drawn by the processor, not by a graphics processor');
  const ratio = window.devicePixelRatio || 1;
  add('display.resolution', 'Display', resolutionOf(screen.width * ratio, screen.height * ratio));
  add('display.pixel_ratio', 'Pixel ratio', String(Math.round(ratio * 1000) / 1000));
  const refresh = await refreshRate();
  if (refresh) add('display.refresh', 'Refresh rate, measured', String(refresh), `${refresh} Hz`);
  add('os.language', 'Language', navigator.language);
  add('browser.secure_context', 'Secure connection', String(isSecureContext), isSecureContext ? 'yes' : 'no');
  add('browser.isolated', 'Isolated from other pages', String(crossOriginIsolated), crossOriginIsolated ? 'yes' : 'no');
  const resolution = clockResolution(() => performance.now());
  // Rounded to one digit, because the measured step wanders a little and the fact should not.
  const step = Number(resolution.toPrecision(1));
  add(
    'browser.clock_resolution',
    'Clock step',
    String(Number((step / 1000).toPrecision(1))),
    step < 1 ? `${Math.round(step * 1000)} µs` : `${step} ms`,
  );
  const battery = await agent.getBattery?.().catch(() => undefined);
  if (battery) add('power.source', 'Power', battery.charging ? 'mains' : 'battery');
  return {
    facts: found,
    onMains: battery ? battery.charging : null,
    batteryLevel: battery ? battery.level : null,
    clockResolutionMs: resolution,
  };
}

/** Whether the name is one of a renderer that uses no graphics processor. */
export function drawnBySoftware(renderer: string): boolean {
  return /swiftshader|llvmpipe|softpipe|software|basic render/i.test(renderer);
}

function graphicsNames(): { renderer: string; vendor: string } | null {
  try {
    // A page's own canvas: some browsers have graphics there and not away from it.
    const gl = document.createElement('canvas').getContext('webgl2');
    if (!gl) return null;
    const more = gl.getExtension('WEBGL_debug_renderer_info');
    const names = {
      renderer: String(gl.getParameter(more ? more.UNMASKED_RENDERER_WEBGL : gl.RENDERER)),
      vendor: String(gl.getParameter(more ? more.UNMASKED_VENDOR_WEBGL : gl.VENDOR)),
    };
    gl.getExtension('WEBGL_lose_context')?.loseContext();
    return names;
  } catch {
    return null;
  }
}

/** The longer side first: a phone that is held sideways is the same phone. */
export const resolutionOf = (width: number, height: number): string =>
  [Math.round(width), Math.round(height)].sort((a, b) => b - a).join('x');

/** The display's refresh rate from the time between frames. */
function refreshRate(): Promise<number | null> {
  return new Promise((resolve) => {
    const times: number[] = [];
    const giveUp = setTimeout(() => resolve(null), 2_500);
    const frame = (time: number) => {
      times.push(time);
      if (times.length <= FRAMES) return void requestAnimationFrame(frame);
      clearTimeout(giveUp);
      resolve(usualRate(times));
    };
    requestAnimationFrame(frame);
  });
}

/**
 * The usual rate that is nearest. A busy device leaves frames out and never shows one early, so the shorter gaps tell the
 * display's rate: the fifth part of them that is shortest, without the very shortest. Where no usual rate is near, it is
 * not known.
 */
export function usualRate(frameTimes: readonly number[]): number | null {
  const gaps = frameTimes
    .slice(1)
    .map((t, i) => t - frameTimes[i]!)
    .sort((a, b) => a - b);
  const short = gaps[Math.floor(gaps.length / 5)];
  if (!short || !(short > 0)) return null;
  const rate = 1000 / short;
  const away = (usual: number) => Math.abs(rate / usual - 1);
  const nearest = USUAL_REFRESH.reduce((a, b) => (away(b) < away(a) ? b : a));
  return away(nearest) < NEAR_USUAL ? nearest : null;
}
