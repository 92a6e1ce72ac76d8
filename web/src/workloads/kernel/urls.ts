const FILES = import.meta.glob<string>('../generated/*.wasm', { query: '?url', import: 'default', eager: true });

/** Where a compiled workload is fetched from. */
export function kernelUrl(name: string): string {
  const url = FILES[`../generated/${name}.wasm`];
  if (!url) throw new Error(`there is no compiled workload ${name}`);
  return url;
}
