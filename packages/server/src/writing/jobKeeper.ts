/**
 * Keeps jobs that write what leaves: in a line, two at a time, whoever does their tasks.
 *
 * Jobs and their parts are in the database, so that a server that is started again goes on from the last whole part.
 */
import { randomUUID } from 'node:crypto';
import { EventEmitter } from 'node:events';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import {
  SOUND_SHARE,
  type Job,
  type Sending,
  type ServerJob,
  type WritingProgress,
} from '@cadence/film/write/job.ts';
import { SOUND_PART, type Writing } from '@cadence/film/write/order.ts';
import { RESULT_FILE, WORK_FILE, type Found } from '@cadence/node/crew.ts';
import type { Database } from '../keep/database.ts';
import type { MaterialStore } from '../keep/materialStore.ts';
import { notFound, Problem, problemOf } from '../problem.ts';
import { folderOf, jobKey, materialKey, type Depot } from './depot.ts';
import { readWork, tasksOf, type Hands, type Told } from './hands.ts';
import { JobRows, type KeptJob } from './jobRows.ts';
import { join } from 'node:path';

/** How many jobs are written at a time. */
const AT_ONCE = 2;
/** The least time between two reports of a job, in milliseconds. */
const REPORTING = 300;

/** What is asked for: something of a programme as it was at the press. */
export interface AskedJob {
  readonly programme: Id;
  readonly name: string;
  readonly writing: Writing;
  readonly content: Programme;
}

/** What is known of a job while it is written. */
interface Going {
  readonly shares: Map<string, number>;
  readonly begun: number;
  readonly framesBefore: number;
  reported: number;
}

interface Held extends KeptJob {
  job: Job;
  run: number;
  going?: Going | undefined;
  /** Work that was stopped, and is not over yet. */
  halting?: Promise<void> | undefined;
}

interface JobEvents {
  job: [ServerJob];
  gone: [programme: Id, job: Id];
}

export class JobKeeper {
  readonly events = new EventEmitter<JobEvents>();
  readonly #rows: JobRows;
  readonly #depot: Depot;
  readonly #materials: MaterialStore;
  readonly #hands: Hands;
  readonly #jobs = new Map<Id, Held>();
  /** What is written into the database, one after the other. */
  #keeping: Promise<unknown> = Promise.resolve();
  #isClosed = false;

  private constructor(database: Database, materials: MaterialStore, depot: Depot, hands: Hands) {
    this.#rows = new JobRows(database);
    this.#materials = materials;
    this.#depot = depot;
    this.#hands = hands;
    this.events.setMaxListeners(0);
  }

  /** Takes up what was being written when the server ended. */
  static async open(
    database: Database,
    materials: MaterialStore,
    depot: Depot,
    hands: Hands,
  ): Promise<JobKeeper> {
    const keeper = new JobKeeper(database, materials, depot, hands);
    for (const kept of await keeper.#rows.all()) keeper.#jobs.set(kept.job.id, kept);
    for (const id of await depot.jobs()) if (!keeper.#jobs.has(id)) await depot.clear(id);
    for (const held of keeper.#jobs.values()) {
      if (held.job.state === 'writing') keeper.#beginAgain(held);
      if (held.job.state === 'done') await keeper.#clearWork(held).catch(() => undefined);
    }
    keeper.#turn();
    return keeper;
  }

  /** The jobs of a programme, in the order in which they were asked for. */
  of(programme: Id): ServerJob[] {
    return [...this.#jobs.values()]
      .filter(({ job }) => job.programme === programme)
      .map((held) => this.#told(held));
  }

  all(): Job[] {
    return [...this.#jobs.values()].map(({ job }) => job);
  }

  one(id: Id): Job {
    return this.#held(id).job;
  }

  /** Puts a job at the end of the line. */
  async add({ programme, name, writing, content }: AskedJob): Promise<ServerJob> {
    const id = randomUUID();
    await this.#depot.put(jobKey(id, WORK_FILE), JSON.stringify({ programme: content, writing }));
    const job: Job = { id, programme, name, writing, state: 'waiting', asked: Date.now() };
    const held: Held = await this.#rows.add(job);
    this.#jobs.set(id, held);
    this.#tell(held);
    this.#turn();
    return this.#told(held);
  }

  async pause(id: Id): Promise<void> {
    const held = this.#held(id);
    if (held.job.state !== 'writing' && held.job.state !== 'waiting') return;
    this.#halt(held);
    await this.#change(held, { state: 'paused', problem: undefined });
    this.#turn();
  }

  async goOn(id: Id): Promise<void> {
    const held = this.#held(id);
    if (held.job.state !== 'paused' && held.job.state !== 'failed') return;
    await this.#change(held, { state: 'waiting', problem: undefined });
    this.#turn();
  }

  /** Ends a job, or takes a finished one off the list. Nothing of it stays. */
  async remove(id: Id): Promise<void> {
    const held = this.#held(id);
    this.#jobs.delete(id);
    this.#halt(held);
    this.events.emit('gone', held.job.programme, id);
    await this.#rows.remove(id);
    this.#turn();
    // Somebody may be at its last task for a while.
    void held.halting?.then(() => this.#depot.clear(id)).catch(() => undefined);
  }

  /** The file that was made, on this machine. */
  async file(id: Id): Promise<{ readonly path: string; readonly name: string }> {
    const { job } = this.#held(id);
    if (job.state !== 'done') throw notFound('file yet');
    await this.#depot.fetch(jobKey(id, RESULT_FILE)).catch((error: unknown) => {
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
      throw new Problem(410, 'file-gone', 'The file is gone', 'This file is gone. Write it again.');
    });
    return { path: join(folderOf(this.#depot, id), RESULT_FILE), name: job.name };
  }

  /** What is known of where it is sent; how much has arrived is told, and not kept. */
  async keepSending(id: Id, sending: Sending): Promise<void> {
    const held = this.#jobs.get(id);
    if (!held) return;
    const { state, upload } = held.job.sending ?? {};
    const isNew = state !== sending.state || upload !== sending.upload;
    if (isNew) await this.#change(held, { sending });
    else {
      held.job = { ...held.job, sending };
      this.#tell(held);
    }
  }

  async close(): Promise<void> {
    this.#isClosed = true;
    await this.#hands.close();
    await this.#keeping;
  }

  #held(id: Id): Held {
    const held = this.#jobs.get(id);
    if (!held) throw notFound('job');
    return held;
  }

  #halt(held: Held): void {
    held.going = undefined;
    // Who cannot be reached now is told when it is begun again.
    held.halting = this.#hands.halt(held.job.id, held.run);
  }

  /** Goes on with what was being written when the server ended: others may be at it still. */
  #beginAgain(held: Held): void {
    this.#halt(held);
    this.#beginRun(held);
  }

  #beginRun(held: Held): void {
    held.run++;
    this.#note(held, { state: 'writing', problem: undefined });
    void this.#begin(held);
  }

  /** Begins with what waits, as long as not too much is written. */
  #turn(): void {
    if (this.#isClosed) return;
    const all = [...this.#jobs.values()];
    let room = AT_ONCE - all.filter(({ job }) => job.state === 'writing').length;
    for (const held of all) {
      if (room <= 0) return;
      if (held.job.state !== 'waiting') continue;
      room--;
      this.#beginRun(held);
    }
  }

  /** Has the material of a job in the depot. What is not here is missed by what needs it, which says so. */
  async #bring(job: Id): Promise<void> {
    const { programme } = await readWork(this.#depot, job);
    for (const { hash } of Object.values(programme.materials)) {
      const found = await this.#materials.find(hash).catch(() => undefined);
      if (found) await this.#depot.take(materialKey(hash), found.path);
    }
  }

  async #begin(held: Held): Promise<void> {
    const { run } = held;
    // It may be halted, and begun again, while this waits.
    const isGoing = () =>
      held.run === run && held.job.state === 'writing' && this.#jobs.has(held.job.id);
    try {
      await held.halting;
      await this.#bring(held.job.id);
      const undone = await this.#undone(held);
      if (isGoing() && !this.#isClosed) this.#handOver(held, undone);
    } catch (error) {
      const problem = `It cannot be begun: ${problemOf(error).message}`;
      if (isGoing()) this.#note(held, { state: 'failed', problem });
    }
  }

  /** The tasks of a job that are to be done. */
  async #undone({ job, parts }: Held): Promise<string[]> {
    const undone: string[] = [];
    for (const { name } of tasksOf(job.writing)) {
      const part = parts.get(name);
      // What was made may be gone: somebody may have tidied the folder.
      if (part?.isMade && (await this.#depot.has(jobKey(job.id, name)))) continue;
      if (part) part.isMade = false;
      undone.push(name);
    }
    return undone;
  }

  #handOver(held: Held, undone: readonly string[]): void {
    let framesBefore = 0;
    for (const { isMade, frames } of held.parts.values()) if (isMade) framesBefore += frames;
    held.going = { shares: new Map(), begun: performance.now(), framesBefore, reported: 0 };
    this.#hands.begin({ id: held.job.id, run: held.run, undone }, this.#listener(held));
  }

  #listener(held: Held): Told {
    const { going } = held;
    const isGoing = () => held.going === going;
    return {
      progress: (task, share) => {
        if (!going || !isGoing()) return;
        going.shares.set(task, share);
        const now = performance.now();
        if (now - going.reported < REPORTING) return;
        going.reported = now;
        this.#tell(held);
      },
      made: (task, found) => {
        if (task === RESULT_FILE) {
          if (isGoing()) void this.#done(held, found);
          return;
        }
        going?.shares.delete(task);
        const part = held.parts.get(task);
        if (!part || !this.#jobs.has(held.job.id)) return;
        part.isMade = true;
        part.found = found;
        // A part that the database does not know is found in the depot when it is asked for again.
        void this.#inTurn(() => this.#rows.keepPart(held.job.id, task, part)).catch(
          () => undefined,
        );
        this.#tell(held);
      },
      failed: (why) => {
        if (!isGoing()) return;
        held.going = undefined;
        this.#note(held, { state: 'failed', problem: why });
        this.#turn();
      },
      waits: (why) => {
        if (isGoing() && held.job.problem !== why) this.#note(held, { problem: why });
      },
    };
  }

  async #done(held: Held, { bytes = 0, faults = [], sound }: Found): Promise<void> {
    held.going = undefined;
    const mixed = held.parts.get(SOUND_PART)?.found?.sound;
    const written = { bytes, faults, sound: sound ?? mixed, byHardware: false };
    held.job = { ...held.job, state: 'done', problem: undefined, written };
    await this.#inTurn(() => this.#rows.keep(held)).catch(() => undefined);
    // What cannot be cleared away now is cleared at the next start.
    await this.#clearWork(held).catch(() => undefined);
    this.#tell(held);
    this.#turn();
  }

  #clearWork({ job }: Held): Promise<void> {
    return this.#depot.clear(job.id, RESULT_FILE);
  }

  /** Changes what is known of a job, tells it, and keeps it. */
  async #change(held: Held, part: Partial<Job>): Promise<void> {
    held.job = { ...held.job, ...part };
    this.#tell(held);
    await this.#inTurn(() => this.#rows.keep(held));
  }

  /** Changes what is known of a job. Where it cannot be kept, the next start begins from what was kept before. */
  #note(held: Held, part: Partial<Job>): void {
    void this.#change(held, part).catch(() => undefined);
  }

  #inTurn(work: () => Promise<void>): Promise<void> {
    const turn = this.#keeping.then(work);
    this.#keeping = turn.catch(() => undefined);
    return turn;
  }

  #tell(held: Held): void {
    if (this.#jobs.has(held.job.id)) this.events.emit('job', this.#told(held));
  }

  #told(held: Held): ServerJob {
    return { ...held.job, progress: progressOf(held) };
  }
}

function progressOf({ job, parts, going }: Held): WritingProgress | undefined {
  if (!going && job.state !== 'paused') return undefined;
  const shareOf = (task: string) => going?.shares.get(task) ?? 0;
  const seconds = going ? (performance.now() - going.begun) / 1000 : 0;
  if (job.writing.kind !== 'film') {
    const doing = job.writing.kind === 'sound' ? 'sound' : 'frames';
    return { doing, share: shareOf(RESULT_FILE), frames: 0, seconds };
  }
  let [frames, whole] = [0, 0];
  for (const [name, part] of parts) {
    whole += part.frames;
    frames += part.frames * (part.isMade ? 1 : shareOf(name));
  }
  const sound = parts.get(SOUND_PART);
  const sounding = sound ? SOUND_SHARE : 0;
  const heard = sound?.isMade ? 1 : shareOf(SOUND_PART);
  const share = sounding * heard + ((1 - sounding) * frames) / Math.max(1, whole);
  const doing = going?.shares.has(RESULT_FILE)
    ? 'joining'
    : frames === 0 && sounding > 0 && shareOf(SOUND_PART) > 0
      ? 'sound'
      : 'frames';
  return { doing, share, frames: Math.max(0, frames - (going?.framesBefore ?? 0)), seconds };
}

/** That a job cannot be kept. */
export const cannotBeWritten = (why: string): Problem =>
  new Problem(422, 'not-writable', 'Cannot be written', `${why} Nothing was written.`);
