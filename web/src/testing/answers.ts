import { vi } from 'vitest';

type Asked = { params?: { path?: Record<string, unknown>; query?: Record<string, unknown> }; body?: unknown };
type Answering = (asked: Asked) => unknown;

/** A refusal, as the server words it. */
export class Refusal {
  readonly status: number;
  readonly detail: string;
  readonly code: string | undefined;
  constructor(status: number, detail: string, code?: string) {
    this.status = status;
    this.detail = detail;
    this.code = code;
  }
}

/** Stands for the generated client: answers by method and path, and keeps what it was asked. */
export function answers(known: Record<string, Answering>) {
  const asked: { what: string; body: unknown }[] = [];
  const call = (method: string) =>
    vi.fn(async (path: string, options: Asked = {}) => {
      const what = `${method} ${path}`;
      const answering = known[what];
      if (!answering) throw new Error(`nobody answers ${what}`);
      asked.push({ what, body: options.body });
      const answer = await answering(options);
      return answer instanceof Refusal
        ? { error: { detail: answer.detail, code: answer.code }, response: { ok: false, status: answer.status } }
        : { data: answer, response: { ok: true, status: 200 } };
    });
  return {
    asked,
    api: { GET: call('GET'), POST: call('POST'), PUT: call('PUT'), DELETE: call('DELETE') },
  };
}
