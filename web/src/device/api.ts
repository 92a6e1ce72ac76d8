import type { components } from '../api/schema';

type Schemas = components['schemas'];
export type DeviceSeat = Schemas['DeviceSeat'];
export type DeviceTest = Schemas['DeviceTest'];
export type RunBody = Schemas['RunBody'];
export type StartBody = Schemas['StartBody'];
export type Reason = NonNullable<RunBody['reason']>;
export type ModelRow = Schemas['ModelRow'];
export type ModelPage = Schemas['ModelPage'];
export type CommandState = Schemas['CommandState'];
export type Phase = Schemas['ProgressBody']['phase'];

/** The server answered, and said no. */
export class Refused extends Error {
  readonly status: number;
  readonly code: string;
  constructor(status: number, code: string, message: string) {
    super(message);
    this.status = status;
    this.code = code;
  }
}

/** The server did not answer: it may be restarting, or the connection is gone. What was not sent is kept. */
export class Unreachable extends Error {}

/** Talks to the bench as this device. Sends the token, turns answers into values and problems into errors. */
export class DeviceApi {
  private token: string | null;
  constructor(token: string | null) {
    this.token = token;
  }

  async join(code: string, device: string): Promise<string> {
    const { token } = await this.send<{ token: string }>('POST', 'join', { code, device });
    this.token = token;
    return token;
  }

  seat = () => this.send<DeviceSeat>('GET', 'seat');
  models = (words: string) => this.send<{ rows: ModelRow[] }>('GET', `models?q=${encodeURIComponent(words)}`);
  model = (id: number) => this.send<ModelPage>('GET', `models/${id}`);
  checklist = (deviceClass: ModelRow['deviceClass']) =>
    this.send<string[]>('GET', `checklist?deviceClass=${deviceClass}`);
  start = (body: StartBody) => this.send<DeviceSeat>('POST', 'start', body);
  end = (how: 'DONE' | 'STOPPED') => this.send<DeviceSeat>('POST', 'end', { how });
  command = (after: number, signal: AbortSignal) =>
    this.send<CommandState>('GET', `command?after=${after}`, undefined, { signal });
  progress = (phase: Phase, testId?: number, run?: number, untilMs?: number) =>
    this.send<CommandState>('POST', 'progress', { phase, testId, run, untilMs });

  /** @param key the same for every try, so that a repeated delivery counts once */
  deliver = (key: string, ageMs: number, body: RunBody) =>
    this.send<{ runId: number }>('POST', 'runs', body, {
      headers: { 'Idempotency-Key': key, 'Age-Ms': String(Math.max(0, Math.round(ageMs))) },
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
    if (response.status >= 500) throw new Unreachable(`The server answered ${response.status}.`);
    const answer: unknown = await response.json().catch(() => ({}));
    if (!response.ok) {
      const problem = answer as { code?: string; detail?: string };
      throw new Refused(
        response.status,
        problem.code ?? 'unknown',
        problem.detail ?? `The server answered ${response.status}.`,
      );
    }
    return answer as T;
  }
}
