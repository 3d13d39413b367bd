/**
 * Brings steps to the server, one after the other, and keeps them in the browser until they are
 * acknowledged, so that nothing typed is lost when the server is away or the page is closed.
 */
import { del, get, set } from 'idb-keyval';
import type { Step } from '@cadence/core/programme/history.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import {
  eventsUrl,
  server,
  ServerProblem,
  type KeptStep,
  type OpenedProgramme,
  type SentChange,
} from './api.ts';
import {
  acknowledged,
  arrived,
  closed,
  MANY,
  opened,
  refused,
  unreachable,
} from './programmeState.ts';
import { atRest } from './rest.ts';
import { clientId, handedOn, whenLeftBehind } from './laidBy.ts';
import { say } from './say.ts';
import { sendStep } from './sending.ts';
import { store } from './store.ts';

const shelfOf = (id: Id): string => `waiting-${id}`;
/** First and longest wait before trying again, in milliseconds. */
const WAITS = { first: 500, longest: 8000 };
/** A long step waits so long at most for the page to come to rest, in milliseconds. */
const LONGEST_REST = 400;

/**
 * Steps that were made while the page was being closed. The browser's database takes its time; its
 * local storage does not, so the last steps go there.
 */
function lastWords(id: Id): Step[] {
  const text = localStorage.getItem(shelfOf(id));
  localStorage.removeItem(shelfOf(id));
  return text === null ? [] : (JSON.parse(text) as Step[]);
}

class Outbox {
  readonly #id: Id;
  #sending = false;
  #closed = false;
  #leaving = false;
  #wait = WAITS.first;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #soon: ReturnType<typeof setTimeout> | undefined;
  #events: EventSource | undefined;
  #noHeir: (() => void) | undefined;
  #stored: readonly Step[] = [];
  #storing: Promise<void> = Promise.resolve();

  constructor(id: Id) {
    this.#id = id;
    window.addEventListener('online', this.#now);
    window.addEventListener('pagehide', this.#leave);
    window.addEventListener('pageshow', this.#stay);
    window.addEventListener('storage', this.#overhear);
  }

  /**
   * Sends what was made just now, when the page has shown it; while the page goes, at once, since there
   * is no later.
   */
  soon(): void {
    if (this.#leaving) {
      this.#leave();
      this.pump();
    } else this.#soon ??= setTimeout(() => void this.#pumpAtRest());
  }

  /** A step of thousands of changes waits until the page has shown it. */
  async #pumpAtRest(): Promise<void> {
    const changes = store.getState().open?.pending.at(-1)?.changes.length ?? 0;
    if (changes > MANY) await atRest(LONGEST_REST);
    this.pump();
  }

  /** Opens the programme with what was still waiting in this browser. */
  async open(): Promise<void> {
    const [programme, waiting] = await Promise.all([
      server.open(this.#id),
      get<Step[]>(shelfOf(this.#id)),
    ]);
    this.#take(programme, waiting ?? []);
    this.#listen(programme.version);
    this.#noHeir = whenLeftBehind(this.#id, (steps) => this.#inherit(steps));
    this.pump();
  }

  close(): void {
    if (this.#soon !== undefined) this.pump();
    this.#closed = true;
    clearTimeout(this.#timer);
    this.#events?.close();
    this.#noHeir?.();
    window.removeEventListener('online', this.#now);
    window.removeEventListener('pagehide', this.#leave);
    window.removeEventListener('pageshow', this.#stay);
    window.removeEventListener('storage', this.#overhear);
    store.dispatch(closed());
  }

  readonly #now = (): void => {
    this.#wait = WAITS.first;
    clearTimeout(this.#timer);
    this.pump();
  };

  /** The page goes, and there is no time for anything but this: see {@link lastWords}. */
  readonly #leave = (): void => {
    this.#leaving = true;
    const pending = store.getState().open?.pending ?? [];
    if (pending.length > 0) localStorage.setItem(shelfOf(this.#id), JSON.stringify(pending));
  };

  /** The page was kept by the browser and is shown again. */
  readonly #stay = (): void => {
    this.#leaving = false;
  };

  /** Sends whatever waits. */
  pump(): void {
    clearTimeout(this.#soon);
    this.#soon = undefined;
    void this.#store();
    if (!this.#sending && !this.#closed) void this.#send();
  }

  async #send(): Promise<void> {
    this.#sending = true;
    try {
      for (;;) {
        const open = store.getState().open;
        const step = open?.pending[0];
        if (!open || !step || this.#closed) return;
        const { version } = await sendStep(this.#id, sentOf(step, open.version));
        this.#wait = WAITS.first;
        const now = store.getState().open;
        // An event may have told of it already; and another window's step may lie between.
        if (now?.pending[0]?.id === step.id && version === now.version + 1)
          store.dispatch(acknowledged({ version, at: Date.now() }));
        else if (version > (now?.version ?? 0)) await this.#reopen();
        void this.#store();
      }
    } catch (error) {
      await this.#recover(error);
    } finally {
      this.#sending = false;
    }
  }

  async #recover(error: unknown): Promise<void> {
    if (this.#closed) return;
    const problem = error instanceof ServerProblem ? error : undefined;
    if (problem?.status === 409) {
      store.dispatch(arrived((problem.details.missed ?? []) as KeptStep[]));
      this.#timer = setTimeout(() => this.pump());
      return;
    }
    if (problem?.status === 422 || problem?.status === 413) {
      store.dispatch(refused());
      say.problem(problem.message);
      this.#timer = setTimeout(() => this.pump());
      return;
    }
    store.dispatch(unreachable());
    this.#timer = setTimeout(() => this.pump(), this.#wait);
    this.#wait = Math.min(this.#wait * 2, WAITS.longest);
  }

  async #reopen(more: readonly Step[] = []): Promise<void> {
    const programme = await server.open(this.#id);
    this.#take(programme, [...(store.getState().open?.pending ?? []), ...more]);
  }

  /** Shows what the server has, and on it the steps that wait here or that a closed page left. */
  #take(programme: OpenedProgramme, waiting: readonly Step[]): void {
    const known = new Set(
      [...programme.history.done, ...programme.history.undone].map((step) => step.id),
    );
    const pending = [...waiting, ...lastWords(this.#id)].filter((step) => {
      const isNew = !known.has(step.id);
      known.add(step.id);
      return isNew;
    });
    store.dispatch(opened({ ...programme, id: this.#id, pending }));
  }

  /** A page that was closed may say its last words only after this one was opened. */
  readonly #overhear = (event: StorageEvent): void => {
    if (event.key === shelfOf(this.#id) && event.newValue !== null) this.#inherit();
  };

  #inherit(steps: readonly Step[] = []): void {
    if (!store.getState().open) return;
    void this.#reopen(steps).then(
      () => this.pump(),
      () => store.dispatch(unreachable()),
    );
  }

  /** Keeps the waiting steps in the browser, the newest state last; in a task after those that send them. */
  #store(): Promise<void> {
    this.#storing = this.#storing.then(async () => {
      await new Promise((done) => setTimeout(done));
      const pending = store.getState().open?.pending ?? [];
      const done = handedOn();
      if (pending !== this.#stored) {
        this.#stored = pending;
        if (pending.length > 0) await set(shelfOf(this.#id), pending);
        else await del(shelfOf(this.#id));
      }
      done();
    });
    return this.#storing;
  }

  /** Hears of the steps of other windows. */
  #listen(since: number): void {
    const events = new EventSource(eventsUrl(this.#id, since));
    this.#events = events;
    events.onmessage = (message: MessageEvent<string>) => {
      // One's own step comes back too; of thousands of changes it would take long to read.
      if (message.data.includes(`"clientId":"${clientId}"`)) return;
      const kept = JSON.parse(message.data) as KeptStep;
      const open = store.getState().open;
      if (!open || kept.version <= open.version) return;
      if (kept.version === open.version + 1) store.dispatch(arrived([kept]));
      else void this.#reopen().catch(() => store.dispatch(unreachable()));
    };
    // The server is back: what waits can go at once.
    events.onopen = () => {
      if (store.getState().open?.reached === false) this.#now();
    };
  }
}

const sentOf = (step: Step, base: number): SentChange => ({
  base,
  clientId,
  changeId: step.id,
  name: step.name,
  changes: step.changes,
  ...(step.undoes !== undefined && { undoes: step.undoes }),
  ...(step.redoes !== undefined && { redoes: step.redoes }),
});

let outbox: Outbox | undefined;

/** Opens a programme in this window; the one that was open is closed. */
export async function openProgramme(id: Id): Promise<void> {
  closeProgramme();
  outbox = new Outbox(id);
  await outbox.open();
}

export function closeProgramme(): void {
  outbox?.close();
  outbox = undefined;
}

/** Sends what was made just now, in a task of its own: an edit of thousands of things is shown first. */
export const sendWaiting = (): void => outbox?.soon();
