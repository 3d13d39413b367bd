/**
 * What the server has not acknowledged yet, kept in the browser so that it survives whatever ends the window: the steps
 * that wait, and the edit that is being typed.
 *
 * Each window keeps its own under one key, in two places. The browser's database takes any amount, but takes its time.
 * Its local storage is small and written at once, so each key that is typed goes there, and all that waits when the
 * page is closed. Whichever window opens the programme next takes over what windows that are gone left behind.
 */
import type { Edit } from '@cadence/core/programme/record/change.ts';
import type { Step } from '@cadence/core/programme/record/history.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import { stepOf } from './programmeState.ts';
import type { Windows } from './thisWindow.ts';

/** Synchronous and small: the browser's local storage. */
export interface SmallStorage {
  keys(): readonly string[];
  get(key: string): string | null;
  /** @throws DOMException when the quota is used up */
  set(key: string, text: string): void;
  remove(key: string): void;
  /** Calls back with the key that another window wrote. Returns a function that ends this. */
  watch(written: (key: string) => void): () => void;
}

/** Asynchronous and of any size: the browser's database. */
export interface LargeStorage {
  keys(): Promise<readonly string[]>;
  get(key: string): Promise<readonly Step[] | undefined>;
  set(key: string, steps: readonly Step[]): Promise<void>;
  remove(key: string): Promise<void>;
}

export interface UnsentPorts {
  readonly small: SmallStorage;
  readonly large: LargeStorage;
  readonly windows: Windows;
  /** Names this window. */
  readonly client: string;
  /** Runs work after the next paint. */
  readonly afterPaint: (work: () => void) => void;
}

const PREFIX = 'unsent';
/** The last write of a closed window may arrive this many milliseconds after its lock is released. */
const ARRIVING = 100;
/** Longer texts are written after the paint: writing them would delay the key that was typed. In characters. */
const LONG = 50_000;

export class Unsent {
  readonly #programme: Id;
  readonly #ports: UnsentPorts;
  readonly #ended = new AbortController();
  #pending: readonly Step[] = [];
  /** What is in the database under this window's key. */
  #stored: readonly Step[] = [];
  #storing: Promise<void> = Promise.resolve();
  /** The edit that is being typed, as the step that it will be. */
  #draft: Step | undefined;
  /** Steps that were drafts and are not in the database yet. */
  #claimed: readonly Step[] = [];
  /** Keys of windows that are gone: removed once their steps are in the database under this window's key. */
  #takenOver: readonly string[] = [];
  readonly #watched = new Set<string>();
  #unwatch: (() => void) | undefined;
  #isLong = false;
  #putsLater = false;

  constructor(programme: Id, ports: UnsentPorts) {
    this.#programme = programme;
    this.#ports = ports;
    this.#watched.add(ports.client);
  }

  get #key(): string {
    return `${PREFIX} ${this.#programme} ${this.#ports.client}`;
  }

  /**
   * The steps that were left behind before: by this window, and by those that are gone.
   *
   * @param left  is given, later on, what other windows leave behind
   */
  async open(left: (steps: readonly Step[]) => void): Promise<readonly Step[]> {
    const { small, large, windows } = this.#ports;
    const own = await this.#read(this.#key);
    this.#stored = (await large.get(this.#key)) ?? [];
    const found: Step[] = [...own];
    for (const key of new Set([...small.keys(), ...(await large.keys())])) {
      const client = this.#clientOf(key);
      if (client === undefined || this.#watched.has(client)) continue;
      if (await windows.isGone(client)) {
        found.push(...(await this.#read(key)));
        this.#takenOver = [...this.#takenOver, key];
      } else this.#watch(key, left);
    }
    this.#unwatch = small.watch((key) => this.#watch(key, left));
    return found;
  }

  /** Ends watching for other windows; what waits stays in the browser. */
  close(): void {
    this.#ended.abort();
    this.#unwatch?.();
  }

  /** The steps that wait now, oldest first. They are in the database when the answer comes. */
  wait(pending: readonly Step[]): Promise<void> {
    this.#pending = pending;
    this.#storing = this.#storing.then(() => this.#store());
    return this.#storing;
  }

  /** The edit that is being typed; one that changes nothing takes the draft away. */
  draft({ name, changes }: Edit): void {
    const { id } = this.#draft ?? {};
    this.#draft =
      changes.length > 0 ? stepOf({ name, changes }, id === undefined ? {} : { id }) : undefined;
    if (!this.#isLong) this.#put(this.#claimed);
    else if (!this.#putsLater) {
      this.#putsLater = true;
      this.#ports.afterPaint(() => {
        this.#putsLater = false;
        this.#put(this.#claimed);
      });
    }
  }

  /**
   * What is being typed becomes a step now. Gives the id that the step must have, so that it counts once wherever it
   * is found; undefined where there is no draft.
   */
  claimDraft(): { readonly id: Id } | undefined {
    if (!this.#draft) return undefined;
    const { id } = this.#draft;
    this.#claimed = [...this.#claimed, this.#draft];
    this.#draft = undefined;
    return { id };
  }

  /** Called when the page is being closed: the database would not finish, local storage does. */
  leave(pending: readonly Step[]): void {
    this.#pending = pending;
    const stored = new Set(this.#stored.map(({ id }) => id));
    this.#put(pending.filter(({ id }) => !stored.has(id)));
  }

  async #store(): Promise<void> {
    const { large, small } = this.#ports;
    // Written in a later task than sending, since writing blocks the page.
    await new Promise((done) => setTimeout(done));
    const [pending, claimed, takenOver] = [this.#pending, new Set(this.#claimed), this.#takenOver];
    if (pending !== this.#stored) {
      if (pending.length > 0) await large.set(this.#key, pending);
      else if (this.#stored.length > 0) await large.remove(this.#key);
      this.#stored = pending;
    }
    if (claimed.size > 0) {
      this.#claimed = this.#claimed.filter((step) => !claimed.has(step));
      this.#put(this.#claimed);
    }
    this.#takenOver = this.#takenOver.filter((key) => !takenOver.includes(key));
    for (const key of takenOver) {
      small.remove(key);
      await large.remove(key);
    }
  }

  /** Writes steps and the draft to the local storage. */
  #put(steps: readonly Step[]): void {
    const all = this.#draft ? [...steps, this.#draft] : steps;
    try {
      const text = all.length > 0 ? JSON.stringify(all) : '';
      this.#isLong = text.length > LONG;
      if (text === '') this.#ports.small.remove(this.#key);
      else this.#ports.small.set(this.#key, text);
    } catch {
      // The quota is used up. The database has it once typing rests.
    }
  }

  #clientOf(key: string): string | undefined {
    const [kind, programme, client] = key.split(' ');
    return kind === PREFIX && programme === this.#programme ? client : undefined;
  }

  /** Waits until the window of a key is gone, and gives what it left behind. */
  #watch(key: string, left: (steps: readonly Step[]) => void): void {
    const client = this.#clientOf(key);
    if (client === undefined || this.#watched.has(client)) return;
    this.#watched.add(client);
    const { signal } = this.#ended;
    this.#ports.windows
      .gone(client, signal)
      .then(() => new Promise((done) => setTimeout(done, ARRIVING)))
      .then(async () => {
        this.#watched.delete(client);
        if (signal.aborted) return;
        const steps = await this.#read(key);
        if (steps.length > 0) left(steps);
        this.#takenOver = [...this.#takenOver, key];
      })
      // The programme was closed here before the other window went.
      .catch(() => undefined);
  }

  async #read(key: string): Promise<readonly Step[]> {
    const [many, text] = [(await this.#ports.large.get(key)) ?? [], this.#ports.small.get(key)];
    const few = text === null ? [] : (JSON.parse(text) as Step[]);
    const known = new Set(many.map(({ id }) => id));
    return [...many, ...few.filter(({ id }) => !known.has(id))];
  }
}
