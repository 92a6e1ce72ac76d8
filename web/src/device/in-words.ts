import { InTrouble, Refused, Stranger, Unreachable } from './api.ts';

/** What went wrong, for a person. */
export function inWords(error: unknown): string {
  if (error instanceof Refused || error instanceof Stranger || error instanceof InTrouble) return error.message;
  if (error instanceof Unreachable)
    return 'The server cannot be reached. Check that this device is on the same network, and try again.';
  return `Something went wrong on this page: ${error instanceof Error ? error.message : String(error)}`;
}
