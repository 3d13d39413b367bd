/** Sending a film to an outside host, in pieces, over tus 1.0: it goes on where it stopped. */
import { DetailedError, Upload } from 'tus-js-client';
import type { Sending } from './job.ts';

/** Of a piece, in bytes. */
const PIECE = 4 * 2 ** 20;
/** After how long a piece is tried again that did not arrive, in milliseconds. */
const AGAIN = [300, 1000, 3000];
/** Answers of a host that will be the same next time. 409 is none: a piece that was on its way has arrived meanwhile. */
const REFUSED = [400, 401, 403, 413, 415];

/** What is sent, and where. */
export interface Parcel {
  readonly file: ConstructorParameters<typeof Upload>[0];
  /** In bytes. */
  readonly bytes: number;
  readonly name: string;
  /** Where a host takes films, as a whole address. */
  readonly endpoint: string;
  /** Where it takes the rest of this one, if a part of it was sent. */
  readonly upload?: string | undefined;
}

/** What a host says, as a sentence. */
function problemOf(error: Error | DetailedError): string {
  const answer = error instanceof DetailedError ? error.originalResponse : null;
  if (!answer) return 'The outside host cannot be reached. It goes on where it stopped.';
  const said = answer.getBody().trim();
  return REFUSED.includes(answer.getStatus())
    ? `The outside host refuses it: ${said}`
    : 'The outside host broke off. It goes on where it stopped.';
}

/**
 * Sends a file.
 *
 * @param told  told how it goes: where the rest is taken, how much has arrived, how it ended
 * @returns what stops it; what has arrived stays there
 */
export function send(parcel: Parcel, told: (sending: Sending) => void): () => Promise<void> {
  const { endpoint } = parcel;
  // Below the endpoint it is kept without it: a host may move.
  const kept = (url: string | null) =>
    url?.startsWith(`${endpoint}/`) ? url.slice(endpoint.length) : (url ?? undefined);
  const before = parcel.upload?.startsWith('/') ? endpoint + parcel.upload : parcel.upload;
  let now: Sending = { state: 'sending', share: 0, upload: parcel.upload };
  const tell = (part: Partial<Sending>) => {
    now = { ...now, ...part };
    told(now);
  };
  const upload = new Upload(parcel.file, {
    endpoint,
    ...(before !== undefined && { uploadUrl: before }),
    uploadSize: parcel.bytes,
    chunkSize: PIECE,
    retryDelays: AGAIN,
    onShouldRetry: ({ originalResponse }) => !REFUSED.includes(originalResponse?.getStatus() ?? 0),
    storeFingerprintForResuming: false,
    metadata: { filename: parcel.name },
    onUploadUrlAvailable: () => tell({ upload: kept(upload.url) }),
    onProgress: (sent, whole) => tell({ share: sent / Math.max(1, whole) }),
    onSuccess: () => tell({ state: 'sent', share: 1 }),
    onError: (error) => tell({ state: 'failed', problem: problemOf(error) }),
  });
  upload.start();
  return () => upload.abort();
}
