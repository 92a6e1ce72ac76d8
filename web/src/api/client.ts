import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];

/** What the server adds to a refusal, so that the interface can help: which values, what the state is now. */
export interface ProblemBody {
  code?: string;
  detail?: string;
  refused?: { field: string; reason: string }[];
  now?: unknown;
  nowShown?: string;
  configurationId?: number;
  modelId?: number;
  fingerprint?: string;
  facts?: { key: string; shown: string }[];
}

/** A request that the server did not carry out, in the server's own words for a person. */
export class Problem extends Error {
  readonly status: number;
  readonly code: string;
  readonly body: ProblemBody;
  constructor(status: number, code: string, message: string, body: ProblemBody = {}) {
    super(message);
    this.status = status;
    this.code = code;
    this.body = body;
  }
}

const client = createClient<paths>({ baseUrl: '/', headers: { Accept: 'application/json' } });

/** The token that proves a change was asked for by this page. */
function csrfToken(): string | undefined {
  const token = /(?:^|; )XSRF-TOKEN=([^;]+)/.exec(document.cookie)?.[1];
  return token && decodeURIComponent(token);
}

let owner: string | undefined;

/** Whose page this is: a change is stored for nobody else, whoever signs in meanwhile in another tab. */
export function ownedBy(shelf: string | undefined, person: string | undefined): void {
  owner = shelf && person ? `${encodeURIComponent(shelf)}/${encodeURIComponent(person)}` : undefined;
}

/** What proves that a change was asked for by this page, and by whom. */
function proofs(): Record<string, string> {
  const token = csrfToken();
  return { ...(token ? { 'X-XSRF-TOKEN': token } : {}), ...(owner ? { 'Yarrowmark-For': owner } : {}) };
}

client.use({
  onRequest({ request }) {
    if (request.method !== 'GET')
      Object.entries(proofs()).forEach(([name, content]) => request.headers.set(name, content));
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
    throw announce(
      new Problem(0, 'unreachable', 'The server cannot be reached. Nothing was changed; it is tried again by itself.'),
    );
  }
  if (!answer.response.ok) throw problem(answer.response.status, answer.error ?? {});
  return answer.data as T;
}

function problem(status: number, body: ProblemBody): Problem {
  if (body.code === 'signed-out') window.dispatchEvent(new Event('yarrowmark:signed-out'));
  return announce(
    new Problem(status, body.code ?? 'unknown', body.detail ?? `The server answered ${status} without a reason.`, body),
  );
}

/** Whether nobody refused anything: the server or its records are out of reach for a while. */
export function isAway(error: unknown): boolean {
  return error instanceof Problem && (error.code === 'unreachable' || error.code === 'records-away');
}

/** The line above every view says it, too, and looks when it is over. */
function announce(error: Problem): Problem {
  if (isAway(error)) window.dispatchEvent(new CustomEvent('yarrowmark:away', { detail: error.message }));
  return error;
}

/** Sends a file as it is; the document's client only knows JSON. */
export async function sendFile<T>(path: string, file: Blob): Promise<T> {
  return value<T>(
    fetch(path, {
      method: 'POST',
      body: file,
      headers: {
        'Content-Type': 'application/octet-stream',
        Accept: 'application/json',
        ...proofs(),
      },
    }).then(async (response) => {
      const body: unknown = await response.json().catch(() => ({}));
      return response.ok ? { data: body as T, response } : { error: body, response };
    }),
  );
}
