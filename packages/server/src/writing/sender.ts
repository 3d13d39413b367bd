/** Sends what was written here to an outside host, one file at a time for each job; goes on where it stopped. */
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { Sending } from '@cadence/film/write/job.ts';
import { send } from '@cadence/film/write/sending.ts';
import { Problem } from '../problem.ts';
import type { JobKeeper } from './jobKeeper.ts';

export class Sender {
  readonly #jobs: JobKeeper;
  #endpoint = '';
  readonly #going = new Map<Id, () => Promise<void>>();

  constructor(jobs: JobKeeper) {
    this.#jobs = jobs;
    jobs.events.on('gone', (_programme, job) => void this.#stop(job));
  }

  /** Goes on with what was being sent when the server ended. @param endpoint  where the host takes films */
  begin(endpoint: string): void {
    this.#endpoint = endpoint;
    for (const { id, sending } of this.#jobs.all())
      if (sending?.state === 'sending') void this.#send(id).catch(() => undefined);
  }

  /** Sends the file of a job. @throws Problem where it is not there, or was sent */
  async send(id: Id): Promise<void> {
    const { sending } = this.#jobs.one(id);
    if (sending?.state === 'sent')
      throw new Problem(409, 'sent', 'Sent already', 'This file was sent already.');
    await this.#send(id);
  }

  async #send(id: Id): Promise<void> {
    if (this.#going.has(id)) return;
    // Two presses at once: the second finds it going.
    this.#going.set(id, async () => undefined);
    try {
      const { path, name } = await this.#jobs.file(id);
      const { size: bytes } = await stat(path);
      const before = this.#jobs.one(id).sending;
      await this.#jobs.keepSending(id, { ...before, state: 'sending', share: before?.share ?? 0 });
      const parcel = {
        file: createReadStream(path),
        ...{ bytes, name, endpoint: this.#endpoint, upload: before?.upload },
      };
      this.#going.set(
        id,
        send(parcel, (sending) => this.#told(id, sending)),
      );
    } catch (error) {
      this.#going.delete(id);
      throw error;
    }
  }

  #told(id: Id, sending: Sending): void {
    if (!this.#going.has(id)) return;
    if (sending.state !== 'sending') this.#going.delete(id);
    void this.#jobs.keepSending(id, sending).catch(() => undefined);
  }

  async #stop(id: Id): Promise<void> {
    const stop = this.#going.get(id);
    this.#going.delete(id);
    await stop?.();
  }

  /** Stops sending; it goes on when the server starts again. */
  async close(): Promise<void> {
    for (const id of [...this.#going.keys()]) await this.#stop(id).catch(() => undefined);
  }
}
