import { Refused, type DeviceApi } from './api.ts';
import type { Outbox } from './outbox.ts';

/**
 * Takes the seat that a code stands for. The device's secret is kept before the bench is asked, so whatever is lost or
 * killed in between, asking again with the same code gives the same seat.
 *
 * @param device what it is, in words for the bench
 */
export async function joinBench(
  api: Pick<DeviceApi, 'join'>,
  outbox: Pick<Outbox, 'join' | 'takeSeat' | 'stopJoining'>,
  code: string,
  device: string,
): Promise<void> {
  const { secret } = await outbox.join(code);
  try {
    await outbox.takeSeat(await api.join(code, device, secret));
  } catch (error) {
    if (error instanceof Refused && !error.isForLater) await outbox.stopJoining();
    throw error;
  }
}
