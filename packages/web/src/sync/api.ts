/** Speaking with the server. */
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import type { Commit, ListedProgramme, OpenedProgramme } from '@cadence/core/programme/wire.ts';
import type { ServerJob } from '@cadence/film/write/job.ts';

/** An answer that says what is wrong, as RFC 9457 problem details. */
export class ServerProblem extends Error {
  override readonly name = 'ServerProblem';
  readonly status: number;
  readonly details: Readonly<Record<string, unknown>>;
  constructor(status: number, details: Record<string, unknown>) {
    super(typeof details.detail === 'string' ? details.detail : `The server answered ${status}.`);
    this.status = status;
    this.details = details;
  }
}

/** Requests up to so many characters go on when the page closes; browsers allow 64 KiB. */
const OUTLIVING = 15_000;

async function ask(method: string, path: string, body?: unknown): Promise<Response> {
  const text = body === undefined || body instanceof Blob ? undefined : JSON.stringify(body);
  const response = await fetch(`/api${path}`, {
    method,
    ...(body instanceof Blob && { body }),
    ...(text !== undefined && {
      body: text,
      headers: { 'Content-Type': 'application/json' },
      keepalive: text.length < OUTLIVING,
    }),
  });
  if (response.ok) return response;
  const details = await response.json().catch(() => ({}));
  throw new ServerProblem(response.status, details as Record<string, unknown>);
}

const answer = async <T>(method: string, path: string, body?: unknown): Promise<T> =>
  (await ask(method, path, body)).json() as Promise<T>;

export const server = {
  programmes: () => answer<ListedProgramme[]>('GET', '/programmes'),
  create: (title: string) => answer<{ id: Id }>('POST', '/programmes', { title }),
  open: (id: Id) => answer<OpenedProgramme>('GET', `/programmes/${id}`),
  rename: (id: Id, title: string) => answer<unknown>('PATCH', `/programmes/${id}`, { title }),
  remove: (id: Id) => ask('DELETE', `/programmes/${id}`),
  restore: (id: Id) => ask('POST', `/programmes/${id}/restore`),
  duplicate: (id: Id) => answer<{ id: Id }>('POST', `/programmes/${id}/duplicate`),
  importFile: (file: unknown) => answer<{ id: Id }>('POST', '/programmes/import', file),
  send: (id: Id, commit: Commit) =>
    answer<{ version: number }>('POST', `/programmes/${id}/changes`, commit),
  /** What was heard in a material, if it has been kept; undefined if not. */
  heard: async (hash: string): Promise<Uint8Array | undefined> => {
    const response = await fetch(`/api/materials/${hash}/heard`);
    return response.ok ? new Uint8Array(await response.arrayBuffer()) : undefined;
  },
  /** A WOFF2 font as TrueType or OpenType, which can be shaped with. */
  unpackFont: async (woff2: Uint8Array): Promise<Uint8Array> => {
    const body = new Blob([woff2 as Uint8Array<ArrayBuffer>]);
    return new Uint8Array(await (await ask('POST', '/fonts/unpack', body)).arrayBuffer());
  },
  /** Asks for something of a programme, as it is in `content`, to be written on the server. */
  write: (job: Pick<ServerJob, 'programme' | 'name' | 'writing'>, content: Programme) =>
    answer<ServerJob>('POST', '/jobs', { ...job, content }),
  pauseJob: (id: Id) => ask('POST', `/jobs/${id}/pause`),
  goOnJob: (id: Id) => ask('POST', `/jobs/${id}/go-on`),
  sendJob: (id: Id) => ask('POST', `/jobs/${id}/send`),
  removeJob: (id: Id) => ask('DELETE', `/jobs/${id}`),
  keepBeside: (hash: string, side: 'heard' | 'still', bytes: Blob) =>
    fetch(`/api/materials/${hash}/${side}`, { method: 'PUT', body: bytes }),
};

export const materialUrl = (hash: string): string => `/api/materials/${hash}`;
export const stillUrl = (hash: string): string => `/api/materials/${hash}/still`;
export const fileUrl = (id: Id): string => `/api/programmes/${id}/file`;
export const jobFileUrl = (id: Id): string => `/api/jobs/${id}/file`;
/** Where an outside host takes films from this browser. */
export const hostUrl = (): string => `${location.origin}/api/host/films`;
export const eventsUrl = (id: Id, since: number): string =>
  `/api/programmes/${id}/events?since=${since}`;

/**
 * Sends a file to the server as a stream, with progress from 0 to 1.
 *
 * @throws ServerProblem; DOMException `AbortError` when `signal` stops it
 */
export function upload(
  file: Blob,
  progress: (share: number) => void,
  signal: AbortSignal,
): Promise<{ hash: string; bytes: number }> {
  return new Promise((done, fail) => {
    const request = new XMLHttpRequest();
    request.open('POST', '/api/materials');
    request.responseType = 'json';
    request.upload.onprogress = (event) => progress(event.loaded / Math.max(1, event.total));
    request.onload = () => {
      if (request.status < 300) done(request.response as { hash: string; bytes: number });
      else
        fail(
          new ServerProblem(request.status, (request.response ?? {}) as Record<string, unknown>),
        );
    };
    request.onerror = () => fail(new ServerProblem(0, { detail: 'The server cannot be reached.' }));
    request.onabort = () => fail(new DOMException('Stopped.', 'AbortError'));
    signal.addEventListener('abort', () => request.abort(), { once: true });
    request.send(file);
  });
}
