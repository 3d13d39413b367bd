/**
 * Brings steps to the server, one after the other, and keeps them in the browser until they are
 * acknowledged, so that nothing is lost when the server is away or the page is closed.
 */
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { difference } from '@cadence/core/programme/record/difference.ts';
import type { Step } from '@cadence/core/programme/record/history.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { KeptStep, OpenedProgramme, Commit } from '@cadence/core/programme/wire.ts';
import { ServerProblem } from './api.ts';
import {
  acknowledged,
  arrived,
  closed,
  fellBehind,
  inherited,
  keptBefore,
  MANY,
  opened,
  refused,
  stepOf,
  unreachable,
  type Open,
  type ProgrammeAction,
} from './programmeState.ts';
import type { Unsent } from './unsent.ts';

/** First and longest wait before trying again, in milliseconds. */
export const WAITS = { first: 500, longest: 8000 };
/** The longest wait of a long step for an idle page, in milliseconds. */
const LONGEST_REST = 400;
/** The name of the step that brings an older state on the server up to what a window has. */
const PUT_BACK = 'Restore the state of this window';

/** What the server tells while a programme is open. */
export interface ServerEvents {
  /** A step of another window was kept. */
  readonly step: (kept: KeptStep) => void;
  /** The server answers, and this is its newest version of the programme. */
  readonly version: (version: number) => void;
}

export interface OutboxPorts {
  /** The programme that is open. */
  readonly id: Id;
  /** The open programme as it is now. */
  readonly state: () => Open | null;
  readonly dispatch: (action: ProgrammeAction) => void;
  /** Names this window. */
  readonly client: string;
  readonly unsent: Unsent;
  readonly open: () => Promise<OpenedProgramme>;
  readonly send: (change: Commit) => Promise<{ version: number }>;
  /** Listens to the server's events after a version. Returns a function that ends this. */
  readonly listen: (since: number, events: ServerEvents) => () => void;
  /** Tells the editor why a step was refused. */
  readonly tellRefused: (message: string) => void;
  /** Resolves when the page is idle, at the latest after this many milliseconds. */
  readonly idle: (longest: number) => Promise<void>;
}

export class Outbox {
  readonly #ports: OutboxPorts;
  #sending = false;
  #closed = false;
  #leaving = false;
  #wait = WAITS.first;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #soon: ReturnType<typeof setTimeout> | undefined;
  #unlisten: (() => void) | undefined;

  constructor(ports: OutboxPorts) {
    this.#ports = ports;
  }

  /** Opens the programme with what was still waiting in this browser. */
  async open(): Promise<void> {
    const { open, unsent, listen } = this.#ports;
    const [programme, waiting] = await Promise.all([
      open(),
      unsent.open((steps) => this.#inherit(steps)),
    ]);
    if (this.#closed) return;
    this.#take(programme, waiting);
    this.#unlisten = listen(programme.version, {
      step: (kept) => this.#hear(kept),
      version: (version) => {
        const now = this.#ports.state();
        if (now && version < now.version) void this.#checkOlder(now.version);
        // The server is back: what waits can go at once.
        else if (now?.reached === false) this.retryNow();
      },
    });
    this.pump();
  }

  close(): void {
    if (this.#soon !== undefined) this.pump();
    this.#closed = true;
    clearTimeout(this.#timer);
    this.#unlisten?.();
    this.#ports.unsent.close();
    this.#ports.dispatch(closed());
  }

  /**
   * Sends what was made just now, when the page has shown it; while the page goes, at once, since there
   * is no later.
   */
  soon(): void {
    if (this.#leaving) {
      this.leave();
      this.pump();
    } else this.#soon ??= setTimeout(() => void this.#pumpWhenIdle());
  }

  /** A step of thousands of changes waits until the page has shown it. */
  async #pumpWhenIdle(): Promise<void> {
    const changes = this.#ports.state()?.pending.at(-1)?.changes.length ?? 0;
    if (changes > MANY) await this.#ports.idle(LONGEST_REST);
    this.pump();
  }

  /** Tries again at once, as the server or the network is back. */
  retryNow(): void {
    this.#wait = WAITS.first;
    clearTimeout(this.#timer);
    this.pump();
  }

  /** Called when the page is being closed: only writes down the steps that wait. */
  leave(): void {
    this.#leaving = true;
    this.#ports.unsent.leave(this.#ports.state()?.pending ?? []);
  }

  /** The page was kept by the browser and is shown again. */
  stay(): void {
    this.#leaving = false;
  }

  /** See {@link Unsent.draft}. */
  draft(edit: Edit): void {
    this.#ports.unsent.draft(edit);
  }

  /** See {@link Unsent.claimDraft}. */
  claimDraft(): { readonly id: Id } | undefined {
    return this.#ports.unsent.claimDraft();
  }

  /** Sends whatever waits. */
  pump(): void {
    clearTimeout(this.#soon);
    this.#soon = undefined;
    this.#store();
    if (!this.#sending && !this.#closed) void this.#send();
  }

  #store(): void {
    const now = this.#ports.state();
    if (now && !this.#closed) void this.#ports.unsent.wait(now.pending);
  }

  async #send(): Promise<void> {
    const { state, send } = this.#ports;
    this.#sending = true;
    try {
      for (;;) {
        const now = state();
        const step = now?.pending[0];
        if (!now || !step || this.#closed || now.olderOnServer !== null) return;
        const { version } = await send(this.#sentOf(step, now.version));
        this.#wait = WAITS.first;
        await this.#acknowledge(step, version);
        this.#store();
      }
    } catch (error) {
      this.#recover(error);
    } finally {
      this.#sending = false;
    }
  }

  async #acknowledge(step: Step, version: number): Promise<void> {
    const { state, dispatch } = this.#ports;
    const now = state();
    // An event may have told of it already.
    if (!now || now.pending[0]?.id !== step.id) return;
    if (version === now.version + 1) dispatch(acknowledged({ version, at: Date.now() }));
    else if (version <= now.version) dispatch(keptBefore(step.id));
    // An earlier try kept it, and steps of others that we have not received lie between.
    else return this.reopen();
  }

  #recover(error: unknown): void {
    if (this.#closed) return;
    const { state, dispatch, tellRefused } = this.#ports;
    const problem = error instanceof ServerProblem ? error : undefined;
    if (problem?.status === 422 || problem?.status === 413) {
      dispatch(refused());
      tellRefused(problem.message);
      this.#timer = setTimeout(() => this.pump());
      return;
    }
    const now = state();
    if (problem?.status === 409 && now) {
      const missed = (problem.details.missed ?? []) as KeptStep[];
      const version = Number(problem.details.version);
      if (version < now.version) {
        dispatch(fellBehind(version));
        return;
      }
      dispatch(arrived(missed));
      // Without new steps, an immediate retry would fail the same way.
      if ((state()?.version ?? 0) > now.version) {
        this.#timer = setTimeout(() => this.pump());
        return;
      }
    } else dispatch(unreachable());
    this.#timer = setTimeout(() => this.pump(), this.#wait);
    this.#wait = Math.min(this.#wait * 2, WAITS.longest);
  }

  /**
   * Asks whether the server really has less than the `version` that it acknowledged: what it tells may only have been
   * overtaken on its way.
   */
  async #checkOlder(version: number): Promise<void> {
    const answer = await this.#ports.open().catch(() => undefined);
    if (answer && answer.version < version && !this.#closed)
      this.#ports.dispatch(fellBehind(answer.version));
  }

  /** Puts what this window has on the older state that the server has, as one step. */
  async putOnTop(): Promise<void> {
    const theirs = await this.#ports.open();
    const mine = this.#ports.state()?.programme;
    if (!mine || this.#closed) return;
    const changes = difference(theirs.programme, mine);
    this.#take(theirs, changes.length > 0 ? [stepOf({ name: PUT_BACK, changes })] : []);
    this.retryNow();
  }

  /** Opens the programme anew as the server has it, with what waits here on top. */
  async reopen(more: readonly Step[] = []): Promise<void> {
    const programme = await this.#ports.open();
    if (this.#closed) return;
    this.#take(programme, [...(this.#ports.state()?.pending ?? []), ...more]);
    this.pump();
  }

  /** Shows what the server has, and on it the steps that wait here or that a closed page left. */
  #take(programme: OpenedProgramme, waiting: readonly Step[]): void {
    const { done, undone } = programme.history;
    const known = new Set([...done, ...undone].map(({ id }) => id));
    const pending = waiting.filter(({ id }) => !known.has(id) && known.add(id));
    this.#ports.dispatch(opened({ ...programme, id: this.#ports.id, pending }));
  }

  #inherit(steps: readonly Step[]): void {
    if (this.#closed || !this.#ports.state()) return;
    this.#ports.dispatch(inherited(steps));
    this.pump();
  }

  /** Hears of a step that was kept. */
  #hear(kept: KeptStep): void {
    const now = this.#ports.state();
    if (!now || kept.version <= now.version) return;
    if (kept.version === now.version + 1) this.#ports.dispatch(arrived([kept]));
    else this.reopen().catch(() => this.#ports.dispatch(unreachable()));
  }

  #sentOf(step: Step, base: number): Commit {
    const { id, ...rest } = step;
    return { base, clientId: this.#ports.client, changeId: id, ...rest };
  }
}
