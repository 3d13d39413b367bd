/**
 * What is being written, in a line: one job after the other, in whatever place the editor is.
 *
 * Jobs are kept in the browser's database, and what was made of them in the origin's private file system. They outlive
 * the window: the next one goes on from the last whole part. One window at a time writes, the one that holds a lock.
 */
import { proxy, wrap } from 'comlink';
import { del, get, set, update } from 'idb-keyval';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import type { Job as AnyJob, Sending, Written } from '@cadence/film/write/job.ts';
import { send } from '@cadence/film/write/sending.ts';
import { hostUrl } from '../sync/api.ts';
import { clearJob, jobsHere, resultOf } from '../workers/partsHere.ts';
import type { FilmService } from '../workers/film.worker.ts';
import type { PicturedProgress } from '../workers/filming.ts';

export interface Job extends AnyJob {
  /** The file of the editor's choice. */
  readonly own?: FileSystemFileHandle | undefined;
}

/** How far the job is that is being written, and how fast. */
export interface Going extends PicturedProgress {
  readonly job: Id;
}

interface State {
  readonly jobs: readonly Job[];
  readonly going: Going | null;
}

const LIST = 'writing';
const programmeKey = (job: Id): string => `writing-programme ${job}`;
const LOCK = 'writing';
/** The least time between two reports of how much was sent, in milliseconds. */
const SENDING = 400;

/** What windows tell each other. */
type Word = { readonly say: 'changed' } | { readonly say: 'going'; readonly going: Going | null };

class Jobs {
  #state: State = { jobs: [], going: null };
  readonly #watchers = new Set<() => void>();
  readonly #others = new BroadcastChannel('cadence-writing');
  /** The job that is being written here, and what ends the work on it. */
  #here: { readonly job: Id; readonly end: () => void } | undefined;
  #wake: (() => void) | undefined;
  /** Jobs asked for in this window: their files are given to the editor when they are done. */
  readonly #mine = new Set<Id>();
  /** What is sent from this window, and what stops that. */
  readonly #stops = new Map<Id, () => void>();
  #begun = false;
  /** Called when a job of this window is done. */
  whenDone: (job: Job) => void = () => undefined;

  readonly watch = (watcher: () => void): (() => void) => {
    this.#begin();
    this.#watchers.add(watcher);
    return () => this.#watchers.delete(watcher);
  };
  readonly state = (): State => this.#state;

  #set(part: Partial<State>): void {
    this.#state = { ...this.#state, ...part };
    for (const watcher of this.#watchers) watcher();
  }

  #tell(word: Word): void {
    // A picture of the frame is for this window alone.
    this.#others.postMessage(
      word.say === 'going' && word.going
        ? { ...word, going: { ...word.going, picture: undefined } }
        : word,
    );
  }

  /** Takes over what is waiting, as soon as no other window writes. */
  #begin(): void {
    if (this.#begun) return;
    this.#begun = true;
    this.#others.onmessage = ({ data }: MessageEvent<Word>) => {
      if (data.say === 'going') this.#set({ going: data.going });
      else void this.#reload();
    };
    void this.#reload().then(() => {
      // What a window that is gone was sending.
      for (const { id, sending } of this.#state.jobs)
        if (sending?.state === 'sending') void this.send(id).catch(() => undefined);
      return navigator.locks.request(LOCK, () => this.#work());
    });
  }

  async #reload(): Promise<void> {
    const jobs = (await get<readonly Job[]>(LIST)) ?? [];
    this.#set({ jobs });
    const here = this.#here;
    if (here && jobs.find(({ id }) => id === here.job)?.state !== 'writing') here.end();
    this.#wake?.();
  }

  async #change(change: (jobs: readonly Job[]) => readonly Job[]): Promise<void> {
    await update<readonly Job[]>(LIST, (jobs = []) => change(jobs));
    this.#tell({ say: 'changed' });
    await this.#reload();
  }

  #changeOne(id: Id, part: Partial<Job>): Promise<void> {
    return this.#change((jobs) => jobs.map((job) => (job.id === id ? { ...job, ...part } : job)));
  }

  /** Puts a job at the end of the line. What is written is the programme as it is now. */
  async add(
    programme: Programme,
    job: Pick<Job, 'name' | 'writing'> & { readonly own?: FileSystemFileHandle | undefined },
  ): Promise<void> {
    const id = crypto.randomUUID();
    this.#mine.add(id);
    await set(programmeKey(id), programme);
    const { own, ...rest } = job;
    await this.#change((jobs) => [
      ...jobs,
      {
        ...rest,
        own,
        id,
        programme: programme.facts.id,
        state: 'waiting',
        asked: Date.now(),
      },
    ]);
  }

  pause = (id: Id): Promise<void> => this.#changeOne(id, { state: 'paused' });
  goOn = (id: Id): Promise<void> => this.#changeOne(id, { state: 'waiting' });

  /** Ends a job, or takes a finished one off the list. Nothing of it stays. */
  async remove(id: Id): Promise<void> {
    this.#stops.get(id)?.();
    await this.#change((jobs) => jobs.filter((job) => job.id !== id));
    await del(programmeKey(id));
    await clearJob(id);
  }

  /** Sends the file of a job to the outside host, or goes on where that stopped; in one window at a time. */
  async send(id: Id): Promise<void> {
    await navigator.locks.request(`sending ${id}`, { ifAvailable: true }, async (lock) => {
      const job = this.#state.jobs.find((each) => each.id === id);
      if (!lock || !job || job.sending?.state === 'sent') return;
      const file = await this.file(job);
      const parcel = {
        ...{ file, bytes: file.size, name: job.name, upload: job.sending?.upload },
        endpoint: hostUrl(),
      };
      await new Promise<void>((done) => {
        let kept = 0;
        let known: Sending | undefined;
        const stop = send(parcel, (sending) => {
          const now = performance.now();
          const isNew = sending.state !== known?.state || sending.upload !== known.upload;
          if (!isNew && now - kept < SENDING) return;
          [kept, known] = [now, sending];
          void this.#changeOne(id, { sending });
          if (sending.state !== 'sending') done();
        });
        this.#stops.set(id, () => {
          void stop();
          done();
        });
      }).finally(() => this.#stops.delete(id));
    });
  }

  /** The file that was made, as long as it is kept here. */
  async file({ id, own }: Job): Promise<File> {
    return (own ?? (await resultOf(id))).getFile();
  }

  /** Writes what waits, as long as this window lives. */
  async #work(): Promise<never> {
    // A window that is gone was writing these.
    await this.#change((jobs) =>
      jobs.map((job) => (job.state === 'writing' ? { ...job, state: 'waiting' } : job)),
    );
    await this.#clearLeft();
    for (;;) {
      const next = this.#state.jobs.find(({ state }) => state === 'waiting');
      if (next) await this.#write(next);
      else
        await new Promise<void>((woken) => {
          this.#wake = woken;
        });
      this.#wake = undefined;
    }
  }

  /** Removes what a job left that is on no list. */
  async #clearLeft(): Promise<void> {
    for (const id of await jobsHere().catch(() => []))
      if (!this.#state.jobs.some((job) => job.id === id)) await clearJob(id);
  }

  async #write(job: Job): Promise<void> {
    const programme = await get<Programme>(programmeKey(job.id));
    if (!programme) {
      await this.#changeOne(job.id, { state: 'failed', problem: 'Its programme is gone.' });
      return;
    }
    await this.#changeOne(job.id, { state: 'writing' });
    const worker = new Worker(new URL('../workers/film.worker.ts', import.meta.url), {
      type: 'module',
    });
    const going = (progress: PicturedProgress) => {
      // The small picture stays until the next one.
      const picture = progress.picture ?? this.#state.going?.picture;
      const now = { ...progress, job: job.id, ...(picture && { picture }) };
      this.#set({ going: now });
      this.#tell({ say: 'going', going: now });
    };
    try {
      const own = await stillAllowed(job.own);
      // Where it may not be written any more, the film is kept here, and is there to be saved.
      if (job.own && !own) await this.#changeOne(job.id, { own });
      const written = await new Promise<Written | undefined>((done, fail) => {
        this.#here = { job: job.id, end: () => done(undefined) };
        worker.onerror = () =>
          fail(new Error('The part of the browser that writes it broke down.'));
        wrap<FilmService>(worker)
          .write(job.id, programme, job.writing, own, proxy(going))
          .then(done, fail);
      });
      if (!written) return;
      const done: Partial<Job> = { state: 'done', written };
      await this.#changeOne(job.id, done);
      await del(programmeKey(job.id));
      const made = this.#state.jobs.find(({ id }) => id === job.id);
      if (made && this.#mine.has(job.id)) this.whenDone(made);
    } catch (error) {
      await this.#changeOne(job.id, { state: 'failed', problem: problemOf(error) });
    } finally {
      worker.terminate();
      this.#here = undefined;
      // What it wrote after it was taken off the list.
      if (!this.#state.jobs.some(({ id }) => id === job.id)) await clearJob(job.id);
      this.#set({ going: null });
      this.#tell({ say: 'going', going: null });
    }
  }
}

/** A file of the editor's choice, if it can be written without asking again. */
async function stillAllowed(
  own: FileSystemFileHandle | undefined,
): Promise<FileSystemFileHandle | undefined> {
  const asking = own as
    | (FileSystemFileHandle & { queryPermission(what: { mode: string }): Promise<string> })
    | undefined;
  return (await asking?.queryPermission({ mode: 'readwrite' })) === 'granted' ? own : undefined;
}

function problemOf(error: unknown): string {
  if (error instanceof DOMException && error.name === 'QuotaExceededError')
    return 'The disk has no room for it, or the browser may use no more. What was written so far is kept.';
  const message = error instanceof Error ? error.message : String(error);
  return /quota/i.test(message)
    ? 'The disk has no room for it, or the browser may use no more. What was written so far is kept.'
    : message;
}

export const jobs = new Jobs();
