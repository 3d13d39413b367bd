/**
 * A crew: processes that write parts of films.
 *
 * Codecs can end the process that they are in. One of a crew may end: what it was doing fails, and the next task starts
 * it again. Codecs also keep some of what they took as long as their process lives, so that another one takes its place
 * after some parts.
 */
import { fork, type ChildProcess } from 'node:child_process';
import { availableParallelism } from 'node:os';
import type { Programme } from '@cadence/core/programme/programme.ts';
import type { SoundFound } from '@cadence/film/write/film.ts';
import type { Writing } from '@cadence/film/write/order.ts';

/** What is written, as it lies in the folder of a job. */
export interface Work {
  readonly programme: Programme;
  readonly writing: Writing;
}

/** The names of files in the folder of a job, beside those of its parts. */
export const WORK_FILE = 'work.json';
export const RESULT_FILE = 'result';

export interface Task {
  /** The folder of the job: what is to be written, the parts, the result. */
  readonly folder: string;
  /** Where the files of materials are. */
  readonly material: string;
  /** The part; or {@link RESULT_FILE}, which joins all parts of a film, and writes everything else in one piece. */
  readonly name: string;
}

/** What was found in doing a task. */
export interface Found {
  readonly sound?: SoundFound | undefined;
  readonly faults?: readonly string[] | undefined;
  /** Of the result. */
  readonly bytes?: number | undefined;
}

export interface Asked {
  readonly id: number;
  readonly task: Task;
}

export type Answered =
  | { readonly id: number; readonly share: number }
  | { readonly id: number; readonly found: Found }
  | { readonly id: number; readonly failed: string };

/** A task that cannot be done, however often it is tried; as a sentence. */
export class TaskFailed extends Error {
  override readonly name = 'TaskFailed';
}

/** One of a crew has ended in the middle of a task. */
export class CrewEnded extends Error {
  override readonly name = 'CrewEnded';
}

interface Waiting {
  readonly told: (share: number) => void;
  readonly done: (found: Found) => void;
  readonly fail: (error: Error) => void;
}

/** How far a crew gives way to other processes, as systems count it: from 0, not at all, to 19. */
const GIVES_WAY = 5;
/** How many tasks one process does. */
const TASKS_A_PROCESS = 12;

export class Crew {
  readonly size: number;
  readonly #givesWay: number;
  readonly #members: readonly Member[];

  /**
   * @param size      how many processes it has
   * @param givesWay  how far they give way to other processes, so that whoever started them goes on answering
   */
  constructor(size = availableParallelism(), givesWay = GIVES_WAY) {
    this.size = size;
    this.#givesWay = givesWay;
    this.#members = Array.from({ length: size }, () => new Member(this.#givesWay));
  }

  /**
   * Does a task.
   *
   * @param slot  which of the crew does it; it goes on where its last task of the same job ended
   * @param told  told which share of the task is done
   * @throws TaskFailed, CrewEnded
   */
  do(slot: number, task: Task, told: (share: number) => void = () => undefined): Promise<Found> {
    const member = this.#members[slot];
    if (!member) throw new Error(`There are ${this.size} in this crew.`);
    return member.do(task, told);
  }

  /** Ends it at once; what it was doing fails. The next task starts it again. */
  end(): void {
    for (const member of this.#members) member.end();
  }
}

/** One of a crew. */
class Member {
  readonly #givesWay: number;
  readonly #waiting = new Map<number, Waiting>();
  #process: ChildProcess | undefined;
  #asked = 0;
  /** How many tasks its process has been given. */
  #given = 0;

  constructor(givesWay: number) {
    this.#givesWay = givesWay;
  }

  do(task: Task, told: (share: number) => void): Promise<Found> {
    if (this.#given >= TASKS_A_PROCESS && this.#waiting.size === 0) this.end();
    const id = this.#asked++;
    this.#given++;
    const child = (this.#process ??= this.#start());
    return new Promise((done, fail) => {
      this.#waiting.set(id, { told, done, fail });
      child.send({ id, task } satisfies Asked);
    });
  }

  end(): void {
    const child = this.#process;
    this.#process = undefined;
    this.#given = 0;
    child?.kill('SIGKILL');
    this.#failAll();
  }

  #start(): ChildProcess {
    const path = new URL('../dist/crewProcess.mjs', import.meta.url);
    const child = fork(path, [String(this.#givesWay)], {
      // What one that dies says of it goes nowhere: the task is told, and tried again.
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
      execArgv: [],
    });
    child.on('message', (answer: Answered) => this.#answer(answer));
    child.on('error', () => undefined);
    child.on('exit', () => {
      if (this.#process !== child) return;
      this.#process = undefined;
      this.#given = 0;
      this.#failAll();
    });
    return child;
  }

  #answer(answer: Answered): void {
    const waiting = this.#waiting.get(answer.id);
    if ('share' in answer) {
      waiting?.told(answer.share);
      return;
    }
    this.#waiting.delete(answer.id);
    if ('found' in answer) waiting?.done(answer.found);
    else waiting?.fail(new TaskFailed(answer.failed));
  }

  #failAll(): void {
    const all = [...this.#waiting.values()];
    this.#waiting.clear();
    for (const { fail } of all) fail(new CrewEnded('What writes the film has ended.'));
  }
}
