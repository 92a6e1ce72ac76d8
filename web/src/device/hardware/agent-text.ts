/** What a browser that sends no structured data says of itself in its one line of text. */

export interface System {
  name: string;
  /** Only where it is that of the system: some send the same one for ever. */
  version?: string;
  architecture?: string;
}

/** An engine that tells itself to be a relative of others, and is found in browsers of several names. */
const WEBKIT = /AppleWebKit\/(?!.*\b(?:Chrome|Chromium)\/)/;

/** Whether this engine tells one of a few numbers of processors, whatever there are. */
export function roundsThreads(text: string): boolean {
  return WEBKIT.test(text);
}

export function browserFromText(text: string): { name: string; version: string } | null {
  // Later words are the more telling ones: engines name their relatives first.
  const words = [...text.matchAll(/([A-Za-z]+)\/(\d+(?:\.\d+)*)/g)].map((m) => ({ name: m[1]!, version: m[2]! }));
  const version = words.find((w) => w.name === 'Version');
  const named = words.filter((w) => !['Mozilla', 'AppleWebKit', 'Gecko', 'Version', 'Mobile'].includes(w.name));
  const specific =
    named.filter((w) => w.name !== 'Safari' && w.name !== 'Chrome').pop() ??
    named.find((w) => w.name === 'Chrome') ??
    named.pop();
  if (!specific) return null;
  if (specific.name !== 'Safari') return specific;
  // Every browser of the engine says this word; only its maker's systems have the browser of that name.
  const own = /Mac OS X/.test(text);
  return { name: own ? 'Safari' : 'a WebKit browser', version: version?.version ?? specific.version };
}

const ARCHITECTURE = /^(.*) (x86_64|amd64|aarch64|arm64|armv\w+|i[3-6]86|riscv64)$/;

/** From the brackets that follow the first name. */
export function systemFromText(text: string): System | undefined {
  const parts = (/\(([^)]*)\)/.exec(text)?.[1] ?? '')
    .split(';')
    .map((part) => part.trim())
    .filter((part) => part !== '' && part !== 'X11' && part !== 'U' && part !== 'Wayland');
  const found = (pattern: RegExp) => parts.map((p) => pattern.exec(p)).find((m) => m !== null);
  const android = found(/^Android (\d+(?:\.\d+)*)/);
  if (android) return { name: 'Android', version: android[1]! };
  const ios = found(/^CPU(?: iPhone)? OS (\d+(?:_\d+)*) like Mac OS X/);
  if (ios) return { name: 'iOS', version: ios[1]!.replaceAll('_', '.') };
  if (found(/Mac OS X/)) return { name: 'macOS' };
  if (found(/^Windows NT/)) return { name: 'Windows' };
  const first = parts[0];
  if (first === undefined) return undefined;
  const both = ARCHITECTURE.exec(first);
  if (both) return { name: both[1]!, architecture: both[2]! };
  const architecture = parts.slice(1).find((p) => ARCHITECTURE.test(`x ${p}`));
  return { name: first, ...(architecture !== undefined && { architecture }) };
}
