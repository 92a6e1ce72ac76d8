/** Whether whoever holds the device let tests take more than a tenth of the space left to this page. */
let allowed = false;

export function allowStorage(yes: boolean): void {
  allowed = yes;
}

export function storageAllowed(): boolean {
  return allowed;
}

/** Bytes the browser would still store for this page; nothing where it does not say. */
export async function freeBytes(): Promise<number | null> {
  const said = await navigator.storage?.estimate?.().catch(() => undefined);
  return said?.quota === undefined ? null : Math.max(0, said.quota - (said.usage ?? 0));
}
