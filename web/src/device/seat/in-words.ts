import { errorWords } from '../../format/format.ts';
import { InTrouble, Refused, Stranger, Unreachable } from './api.ts';

/** Whether it says by itself, in the server's or our words, what is the matter. */
export const saysWhy = (error: unknown): error is Error =>
  error instanceof Refused || error instanceof Stranger || error instanceof InTrouble;

/** What went wrong, for a person. */
export function inWords(error: unknown): string {
  if (saysWhy(error)) return error.message;
  if (error instanceof Unreachable)
    return 'The server cannot be reached. Check that this device is on the same network, and try again.';
  return `Something went wrong on this page: ${errorWords(error)}`;
}
