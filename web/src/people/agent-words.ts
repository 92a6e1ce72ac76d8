/** Which kind of program and system a browser says it is; no more is promised by what it says. */
export function agentWords(agent: string): string {
  const system = SYSTEMS.find(([pattern]) => pattern.test(agent))?.[1];
  const engine = ENGINES.find(([pattern]) => pattern.test(agent))?.[1];
  if (!system && !engine) return agent === '' ? 'a program' : agent.slice(0, 40);
  return [engine ?? 'a browser', system].filter(Boolean).join(' on ');
}

const SYSTEMS: [RegExp, string][] = [
  [/Android/, 'Android'],
  [/iPhone|iPad/, 'iOS'],
  [/Windows/, 'Windows'],
  [/Mac OS X/, 'macOS'],
  [/Linux/, 'Linux'],
];
const ENGINES: [RegExp, string][] = [
  [/Firefox\//, 'a Gecko browser'],
  [/Chrom(e|ium)\//, 'a Chromium browser'],
  [/AppleWebKit\//, 'a WebKit browser'],
];
