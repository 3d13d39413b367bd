/** One of a crew: does tasks in a thread, and ends with whoever started it. */
import { readFile, stat } from 'node:fs/promises';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import { proxy, type Remote } from 'comlink';
import { frameCount, partsOf, SOUND_PART, type FilmOrder } from '@cadence/film/write/order.ts';
import { RESULT_FILE, WORK_FILE, type Answered, type Asked, type Found } from './crew.ts';
import type { Task, Work } from './crew.ts';
import type { FilmHelper } from './filmHelper.ts';
import { startHelper, type HelperThread } from './helperThread.ts';

/** The least time between two reports of a task, in milliseconds. */
const REPORTING = 200;

/** Ends at once: codecs that are open in threads would end it with noise. */
const end = (): void => {
  process.kill(process.pid, 'SIGKILL');
};

const answer = (what: Answered): void => void process.send?.(what);

/** The thread, and the job that it has begun. */
class Working {
  #thread: HelperThread<'film'> | undefined;
  #work: Work | undefined;
  #folder = '';

  async do(task: Task, told: (share: number) => void): Promise<Found> {
    try {
      return await this.#do(task, told);
    } catch (error) {
      await this.#rest();
      throw error;
    }
  }

  async #do({ folder, material, name }: Task, told: (share: number) => void): Promise<Found> {
    if (this.#folder !== folder) await this.#rest();
    this.#work ??= JSON.parse(await readFile(join(folder, WORK_FILE), 'utf8')) as Work;
    const { programme, writing } = this.#work;
    const { helper } = (this.#thread ??= startHelper('film', end));
    const out = join(folder, RESULT_FILE);
    if (writing.kind !== 'film') {
      const sound = await helper.piece({ programme, writing, material }, out, proxy(told));
      return { sound, faults: [], bytes: (await stat(out)).size };
    }
    if (this.#folder === '')
      await helper.begin({ programme, order: writing.order, material, parts: folder });
    this.#folder = folder;
    return this.#film(helper, writing.order, name, out, told);
  }

  async #film(
    helper: Remote<FilmHelper>,
    order: FilmOrder,
    name: string,
    out: string,
    told: (share: number) => void,
  ): Promise<Found> {
    if (name === SOUND_PART) return { sound: await helper.sound(proxy(told)) };
    if (name === RESULT_FILE) {
      const whole = frameCount(order);
      const faults = await helper.join(
        out,
        proxy((frames) => told(frames / whole)),
      );
      return { faults, bytes: (await stat(out)).size };
    }
    const part = partsOf(order).find((each) => each.name === name);
    if (!part) throw new Error('There is no such part.');
    let frames = 0;
    await helper.part(
      part,
      proxy(() => told(++frames / (part.to - part.from))),
    );
    return {};
  }

  /** Lets go of the job. */
  async #rest(): Promise<void> {
    const thread = this.#thread;
    this.#thread = undefined;
    this.#work = undefined;
    this.#folder = '';
    await thread?.helper.end();
    await thread?.end();
  }
}

const working = new Working();

async function take({ id, task }: Asked): Promise<void> {
  let last = 0;
  try {
    const found = await working.do(task, (share) => {
      const now = performance.now();
      if (now - last < REPORTING) return;
      last = now;
      answer({ id, share });
    });
    answer({ id, found });
  } catch (error) {
    answer({ id, failed: error instanceof Error ? error.message : String(error) });
  }
}

setPriority(Number(process.argv[2] ?? 0));
process.on('message', (asked: Asked) => void take(asked));
process.on('disconnect', end);
