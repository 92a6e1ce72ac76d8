import { Refused, type DeviceApi } from './api.ts';
import type { Outbox } from './outbox.ts';

/** A kept run that the server will not take. It is shown, with the reason, and not tried again. */
export interface NotTaken {
  message: string;
}

/**
 * Delivers what is kept, oldest first. Ends early where the server cannot be reached: the rest stays kept for the next
 * try. A run that the server refuses for good leaves the queue, so that it does not hold up the others.
 */
export async function deliverKept(
  api: Pick<DeviceApi, 'deliver'>,
  outbox: Pick<Outbox, 'waiting' | 'confirmed'>,
  now: () => number,
): Promise<NotTaken[]> {
  const notTaken: NotTaken[] = [];
  for (const kept of await outbox.waiting()) {
    try {
      await api.deliver(kept.key, now() - kept.finishedAt, kept.body);
    } catch (error) {
      if (!(error instanceof Refused) || error.status === 429 || error.status === 408) throw error;
      notTaken.push({ message: error.message });
    }
    await outbox.confirmed(kept.key);
  }
  return notTaken;
}
