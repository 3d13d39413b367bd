/** The hands of this machine: a crew that does the tasks of all jobs in turn. */
import type { Id } from '@cadence/core/programme/programme.ts';
import { CrewEnded, RESULT_FILE, type Crew } from '@cadence/node/crew.ts';
import { Rows } from '@cadence/node/rows.ts';
import type { Depot } from './depot.ts';
import { doTask, type Hands, type JobToDo, type Told } from './hands.ts';

/** How often a task is tried whose crew ended in the middle of it. */
const TRIES = 3;

interface Going {
  readonly job: Id;
  readonly told: Told;
  readonly rows: Rows<string>;
  readonly tries: Map<string, number>;
  /** How many tasks before the result are not done. */
  left: number;
  readonly running: Set<Promise<void>>;
  resultBegun: boolean;
}

export class OwnHands implements Hands {
  readonly #depot: Depot;
  readonly #crew: Crew;
  readonly #jobs = new Map<Id, Going>();
  readonly #idle: Set<number>;
  /** Jobs that were halted, and are still at their last task. */
  #ending = 0;

  constructor(depot: Depot, crew: Crew) {
    this.#depot = depot;
    this.#crew = crew;
    this.#idle = new Set(Array.from({ length: crew.size }, (_, slot) => slot));
  }

  begin({ id, undone }: JobToDo, told: Told): void {
    this.#jobs.set(id, {
      job: id,
      told,
      rows: new Rows(undone, this.#crew.size),
      tries: new Map(),
      left: undone.length,
      running: new Set(),
      resultBegun: false,
    });
    this.#turn();
  }

  async halt(job: Id): Promise<void> {
    const going = this.#jobs.get(job);
    if (!going) return;
    this.#jobs.delete(job);
    // Where nothing else is written, nothing else is lost.
    if (this.#jobs.size + this.#ending === 0) this.#crew.end();
    this.#ending++;
    await Promise.allSettled(going.running);
    this.#ending--;
    this.#turn();
  }

  async close(): Promise<void> {
    const all = [...this.#jobs.values()];
    this.#jobs.clear();
    this.#crew.end();
    await Promise.allSettled(all.flatMap(({ running }) => [...running]));
  }

  /** Gives each idle thread a task of the job that has the fewest of them. */
  #turn(): void {
    for (const slot of [...this.#idle]) {
      const jobs = [...this.#jobs.values()].sort((a, b) => a.running.size - b.running.size);
      for (const going of jobs) {
        const task = nextTask(going, slot);
        if (task === undefined) continue;
        this.#idle.delete(slot);
        const running: Promise<void> = this.#do(going, task, slot).finally(() => {
          going.running.delete(running);
          this.#idle.add(slot);
          this.#turn();
        });
        going.running.add(running);
        break;
      }
    }
    if (this.#jobs.size + this.#ending === 0) this.#crew.end();
  }

  async #do(going: Going, task: string, slot: number): Promise<void> {
    const { job, told, tries, rows } = going;
    const isGoing = () => this.#jobs.get(job) === going;
    try {
      const found = await doTask(this.#depot, this.#crew, { job, name: task, slot }, (share) => {
        if (isGoing()) told.progress(task, share);
      });
      going.left--;
      if (task === RESULT_FILE && isGoing()) this.#jobs.delete(job);
      told.made(task, found);
    } catch (error) {
      if (!isGoing()) return;
      const tried = (tries.get(task) ?? 0) + 1;
      tries.set(task, tried);
      if (error instanceof CrewEnded && tried < TRIES) {
        if (task === RESULT_FILE) going.resultBegun = false;
        else rows.back(slot, task);
        return;
      }
      this.#jobs.delete(job);
      told.failed(error instanceof Error ? error.message : String(error));
    }
  }
}

/** The next task of a job for a thread; undefined where there is none for now. */
function nextTask(going: Going, slot: number): string | undefined {
  const next = going.rows.next(slot);
  if (next !== undefined) return next;
  if (going.left > 0 || going.resultBegun) return undefined;
  going.resultBegun = true;
  return RESULT_FILE;
}
