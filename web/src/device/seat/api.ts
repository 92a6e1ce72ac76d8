import type { components } from '../../api/schema';

type Schemas = components['schemas'];
export type DeviceSeat = Schemas['DeviceSeat'];
export type DeviceTest = Schemas['DeviceTest'];
export type RunBody = Schemas['RunBody'];
export type StartBody = Schemas['StartBody'];
export type Reason = NonNullable<RunBody['reason']>;
export type ModelRow = Schemas['DeviceModel'];
export type ModelUnits = Schemas['DeviceModelUnits'];
export type CommandState = Schemas['CommandState'];
export type Phase = Schemas['ProgressBody']['phase'];

/** Answers that are no verdict on what was sent: it is tried again later. */
const LATER = new Set([408, 421, 425, 429]);

/** The server answered, and said no. */
export class Refused extends Error {
  readonly status: number;
  readonly code: string;
  constructor(status: number, code: string, message: string) {
    super(message);
    this.status = status;
    this.code = code;
  }
  get isForLater(): boolean {
    return LATER.has(this.status);
  }
}

/** The server did not answer: it may be restarting, or the connection is gone. What was not sent is kept. */
export class Unreachable extends Error {}

/** Our own server answered that it cannot take anything just now, and why. */
export class InTrouble extends Unreachable {}

/** Something answers at this address, and it is not the shelf that gave this device its seat. */
export class Stranger extends Unreachable {}

/** What the server says of a delivered run. */
export interface Stored {
  runId?: number;
  /** The key that it was delivered under. */
  key: string;
  /** The session was ended meanwhile: the run is kept at the bench, and the reviewer decides. */
  late: boolean;
}

/** What a round measured. */
export type RoundAnswer = Schemas['RoundAnswer'];

const SHELF = 'Yarrowmark-Shelf';

/** What a device keeps of its place at the bench. */
export interface Seat {
  token: string;
  shelf: string | null;
}

/** Talks to the bench as this device. Sends the token, turns answers into values and problems into errors. */
export class DeviceApi {
  private token: string | null;
  /** The shelf that gave the seat; none before a device has joined. */
  private shelf: string | null;
  constructor(token: string | null, shelf: string | null = null) {
    this.token = token;
    this.shelf = shelf;
  }

  /** @param secret kept on this device: the same one with the same code gives the same seat again */
  async join(code: string, device: string, secret: string): Promise<Seat> {
    this.shelf = null;
    const { token } = await this.send<{ token: string }>('POST', 'join', { code, device, secret });
    this.token = token;
    return { token, shelf: this.shelf };
  }

  seat = () => this.send<DeviceSeat>('GET', 'seat');
  models = (words: string) => this.send<{ rows: ModelRow[] }>('GET', `models?q=${encodeURIComponent(words)}`);
  model = (id: number) => this.send<ModelUnits>('GET', `models/${id}`);
  checklist = (deviceClass: ModelRow['deviceClass']) =>
    this.send<string[]>('GET', `checklist?deviceClass=${deviceClass}`);
  start = (body: StartBody) => this.send<DeviceSeat>('POST', 'start', body);
  end = (how: 'DONE' | 'STOPPED') => this.send<DeviceSeat>('POST', 'end', { how });
  results = () => this.send<RoundAnswer>('GET', 'results');
  command = (after: number, signal: AbortSignal) =>
    this.send<CommandState>('GET', `command?after=${after}`, undefined, { signal });
  progress = (phase: Phase, testId?: number, run?: number, untilMs?: number) =>
    this.send<CommandState>('POST', 'progress', { phase, testId, run, untilMs });

  /** @param key the same for every try, so that a repeated delivery counts once */
  deliver = (key: string, ageMs: number, body: RunBody) =>
    this.send<Stored>('POST', 'runs', body, {
      headers: { 'Idempotency-Key': key, 'Age-Ms': String(Math.max(0, Math.round(ageMs))) },
    });

  /** For tests that measure the way to the server: nothing is looked at, and nothing done again. @param path behind /api/device/ */
  bench = (path: string, init: RequestInit = {}): Promise<Response> =>
    fetch(`/api/device/${path}`, {
      ...init,
      headers: {
        ...(init.headers as Record<string, string>),
        ...(this.token && { Authorization: `Bearer ${this.token}` }),
      },
      cache: 'no-store',
    });

  private async send<T>(
    method: string,
    path: string,
    body?: unknown,
    more: { signal?: AbortSignal; headers?: Record<string, string> } = {},
  ): Promise<T> {
    let response: Response;
    try {
      response = await fetch(`/api/device/${path}`, {
        method,
        headers: {
          ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
          ...(this.token ? { Authorization: `Bearer ${this.token}` } : {}),
          ...more.headers,
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
        signal: more.signal ?? AbortSignal.timeout(20_000),
        cache: 'no-store',
      });
    } catch (error) {
      if (more.signal?.aborted) throw error;
      throw new Unreachable('The server cannot be reached.');
    }
    const shelf = response.headers.get(SHELF);
    if (!shelf || (this.shelf !== null && shelf !== this.shelf))
      throw new Stranger(
        'Another program answers at this address, not the Yarrowmark that gave this device its place.',
      );
    this.shelf = shelf;
    const answer: unknown = await response.json().catch(() => ({}));
    if (!response.ok) {
      const problem = answer as { code?: string; detail?: string };
      if (response.status >= 500)
        throw new InTrouble(problem.detail ?? `The server answered ${response.status}. It is tried again.`);
      throw new Refused(
        response.status,
        problem.code ?? 'unknown',
        problem.detail ?? `The server answered ${response.status}.`,
      );
    }
    return answer as T;
  }
}
