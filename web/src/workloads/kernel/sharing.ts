import type { Obstacle } from '../types.ts';

/** What of it a browser has. */
export interface Sharing {
  secure: boolean;
  isolated: boolean;
  memory: boolean;
  workers: boolean;
}

export function here(): Sharing {
  return {
    secure: globalThis.isSecureContext,
    isolated: globalThis.crossOriginIsolated === true,
    memory: typeof SharedArrayBuffer === 'function',
    workers: typeof Worker === 'function',
  };
}

/** Why threads cannot work on one memory here: what is missing, rather than what mostly is. */
export function sharingObstacle({ secure, isolated, memory, workers }: Sharing = here()): Obstacle | null {
  if (!secure) return { reason: 'NEEDS_SECURE_CONNECTION', words: 'Needs a secure connection: only then do browsers share memory between threads.' };
  if (!workers) return { reason: 'NOT_SUPPORTED', words: 'This browser has no workers, so all its work is one thread.' };
  if (!isolated) return { reason: 'NOT_SUPPORTED', words: 'The connection is secure, but this browser does not keep the page apart from other sites, and shares no memory between threads then.' };
  if (!memory) return { reason: 'NOT_SUPPORTED', words: 'The connection is secure, but this browser has no memory that threads share.' };
  return null;
}
