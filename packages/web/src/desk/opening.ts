/** Opening programmes in this window: one at a time, each once. */
import type { Id } from '@cadence/core/programme/programme.ts';

interface Connection {
  readonly outbox: { open(): Promise<void> };
  readonly end: () => void;
}

export class Opening<C extends Connection> {
  readonly #connect: (id: Id) => C;
  #opened: { readonly id: Id; readonly connection: C; readonly done: Promise<void> } | undefined;

  constructor(connect: (id: Id) => C) {
    this.#connect = connect;
  }

  /** The connection of the programme that is open or being opened. */
  get connection(): C | undefined {
    return this.#opened?.connection;
  }

  /** Opens a programme, unless it is the one that is open or being opened; another one is closed. */
  open(id: Id): Promise<void> {
    if (this.#opened?.id === id) return this.#opened.done;
    this.close();
    const connection = this.#connect(id);
    const done = connection.outbox.open();
    this.#opened = { id, connection, done };
    // After a failure the next call tries again.
    done.catch(() => {
      if (this.#opened?.done === done) this.close();
    });
    return done;
  }

  close(): void {
    this.#opened?.connection.end();
    this.#opened = undefined;
  }
}
