import { Refused, Unreachable, type DeviceApi } from '../seat/api.ts';
import type { Outbox } from '../seat/outbox.ts';

/** What became of what was kept. */
export interface Delivered {
  /** In the ledger. */
  stored: number;
  /** Kept at the bench, because the session was ended without this device. */
  late: number;
  /** Stays here, with the server's reason. */
  refused: number;
}

/**
 * Delivers what is kept, oldest first. Ends early where the server cannot be reached: the rest stays kept for the next
 * try. A run leaves this device only when the server confirms it under the run's own key; one that the server refuses
 * stays too, with the reason, and holds up no other.
 */
export async function deliverKept(
  api: Pick<DeviceApi, 'deliver'>,
  outbox: Pick<Outbox, 'waiting' | 'confirmed' | 'refuse'>,
  now: () => number,
): Promise<Delivered> {
  const became: Delivered = { stored: 0, late: 0, refused: 0 };
  for (const kept of await outbox.waiting()) {
    try {
      const stored = await api.deliver(kept.key, now() - kept.finishedAt, kept.body);
      if (stored.key !== kept.key) throw new Unreachable('The server did not say that it has this run.');
      await outbox.confirmed(kept.key);
      if (stored.late) became.late++;
      else became.stored++;
    } catch (error) {
      if (!(error instanceof Refused) || error.isForLater) throw error;
      await outbox.refuse(kept.key, error.message);
      became.refused++;
    }
  }
  return became;
}
