/**
 * A crew: threads that write parts of films, in a process of their own.
 *
 * Codecs can end the process that they are in. The crew's may end: what it was doing fails, and the next task starts it
 * again. It gives way to other processes, so that whoever started it goes on answering.
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
  readonly slot: number;
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

/** The crew has ended in the middle of a task. */
export class CrewEnded extends Error {
  override readonly name = 'CrewEnded';
}

interface Waiting {
  readonly told: (share: number) => void;
  readonly done: (found: Found) => void;
  readonly fail: (error: Error) => void;
}

export class Crew {
  readonly size: number;
  readonly #waiting = new Map<number, Waiting>();
  #process: ChildProcess | undefined;
  #asked = 0;

  /** @param size  how many threads it has */
  constructor(size = availableParallelism()) {
    this.size = size;
  }

  /**
   * Does a task.
   *
   * @param slot  the thread; one after the other in the same thread goes on where the last ended
   * @param told  told which share of the task is done
   * @throws TaskFailed, CrewEnded
   */
  do(slot: number, task: Task, told: (share: number) => void = () => undefined): Promise<Found> {
    const id = this.#asked++;
    const child = (this.#process ??= this.#start());
    return new Promise((done, fail) => {
      this.#waiting.set(id, { told, done, fail });
      child.send({ id, slot, task } satisfies Asked);
    });
  }

  /** Ends it at once; what it was doing fails. The next task starts it again. */
  end(): void {
    const child = this.#process;
    this.#process = undefined;
    child?.kill('SIGKILL');
    this.#failAll();
  }

  #start(): ChildProcess {
    const child = fork(new URL('../dist/crewProcess.mjs', import.meta.url), {
      // What a crew that dies says of it goes nowhere: the task is told, and tried again.
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
      execArgv: [],
    });
    child.on('message', (answer: Answered) => this.#answer(answer));
    child.on('error', () => undefined);
    child.on('exit', () => {
      if (this.#process !== child) return;
      this.#process = undefined;
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
