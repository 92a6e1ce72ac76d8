import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];

/** A request that the server did not carry out, in the server's own words for a person. */
export class Problem extends Error {
  readonly status: number;
  readonly code: string;
  constructor(status: number, code: string, message: string) {
    super(message);
    this.status = status;
    this.code = code;
  }
}

const client = createClient<paths>({ baseUrl: '/', headers: { Accept: 'application/json' } });

client.use({
  onRequest({ request }) {
    const token = /(?:^|; )XSRF-TOKEN=([^;]+)/.exec(document.cookie)?.[1];
    if (token && request.method !== 'GET') request.headers.set('X-XSRF-TOKEN', decodeURIComponent(token));
    return request;
  },
});

export const api = client;

interface Answer<T> {
  data?: T | undefined;
  error?: unknown;
  response: Response;
}

/** The answer's value; a Problem is thrown where the server refused or could not be reached. */
export async function value<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch {
    throw new Problem(0, 'unreachable', 'The server cannot be reached. Nothing was changed; try again in a moment.');
  }
  if (!answer.response.ok) {
    const problem = (answer.error ?? {}) as { code?: string; detail?: string };
    const status = answer.response.status;
    if (problem.code === 'signed-out') window.dispatchEvent(new Event('yarrowmark:signed-out'));
    throw new Problem(status, problem.code ?? 'unknown', problem.detail ?? `The server answered ${status} without a reason.`);
  }
  return answer.data as T;
}
