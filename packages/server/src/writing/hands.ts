/** Whoever does the tasks of jobs: the crew of this machine, or workers on many. */
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import type { Writing } from '@cadence/film/write/order.ts';
import { partsOf, SOUND_PART } from '@cadence/film/write/order.ts';
import { RESULT_FILE, WORK_FILE, type Crew, type Found, type Work } from '@cadence/node/crew.ts';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { folderOf, jobKey, materialIn, materialKey, type Depot } from './depot.ts';

/** What is told of a job that is being written. */
export interface Told {
  /** How far a task is, from 0 to 1. */
  progress(task: string, share: number): void;
  made(task: string, found: Found): void;
  /** It cannot be written; as a sentence. */
  failed(why: string): void;
  /** What it waits for, as a sentence; undefined when it waits no more. */
  waits(why: string | undefined): void;
}

export interface JobToDo {
  readonly id: Id;
  /** Counts how often it was begun. */
  readonly run: number;
  /** Its parts and its sound that are not there yet; the result comes after them. */
  readonly undone: readonly string[];
}

export interface Hands {
  begin(job: JobToDo, told: Told): void;
  /** Stops work on a job that was begun so often; resolves when nothing of it is written any more. */
  halt(job: Id, run: number): Promise<void>;
  close(): Promise<void>;
}

/** The tasks of a writing, before its result, each with its frames. */
export function tasksOf(writing: Writing): { readonly name: string; readonly frames: number }[] {
  if (writing.kind !== 'film') return [];
  const parts = partsOf(writing.order).map(({ name, from, to }) => ({ name, frames: to - from }));
  return writing.order.audio ? [{ name: SOUND_PART, frames: 0 }, ...parts] : parts;
}

const foundName = (task: string): string => `${task}.found`;

/** What a job is to write. */
export async function readWork(depot: Depot, job: Id): Promise<Work> {
  await depot.fetch(jobKey(job, WORK_FILE));
  return JSON.parse(await readFile(join(folderOf(depot, job), WORK_FILE), 'utf8')) as Work;
}

/** Has the files of all materials here. One that is nowhere is missed by what needs it, which says so. */
async function fetchMaterials({ materials }: Programme, depot: Depot): Promise<void> {
  for (const { hash } of Object.values(materials))
    await depot.fetch(materialKey(hash)).catch(() => undefined);
}

/**
 * Does a task of a job, unless it was done: fetches what it needs, and keeps what it makes.
 *
 * @throws what `Crew.do` throws
 */
export async function doTask(
  depot: Depot,
  crew: Crew,
  { job, name, slot }: { readonly job: Id; readonly name: string; readonly slot: number },
  told: (share: number) => void,
): Promise<Found> {
  const folder = folderOf(depot, job);
  const found = jobKey(job, foundName(name));
  if ((await depot.has(found)) && (await depot.has(jobKey(job, name)))) {
    await depot.fetch(found);
    return JSON.parse(await readFile(join(folder, foundName(name)), 'utf8')) as Found;
  }
  const { programme, writing } = await readWork(depot, job);
  await fetchMaterials(programme, depot);
  if (name === RESULT_FILE)
    for (const part of tasksOf(writing)) await depot.fetch(jobKey(job, part.name));
  const what = await crew.do(slot, { folder, material: materialIn(depot), name }, told);
  await depot.keep(jobKey(job, name));
  await depot.put(found, JSON.stringify(what));
  return what;
}
