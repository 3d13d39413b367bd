/** Parts of films, and what was made of them, in the origin's private file system. */
import { BlobSource, type StreamTargetChunk } from 'mediabunny';
import type { PartStore, Sink } from '@cadence/film/write/store.ts';

const FOLDER = 'films';

async function films(): Promise<FileSystemDirectoryHandle> {
  const root = await navigator.storage.getDirectory();
  return root.getDirectoryHandle(FOLDER, { create: true });
}

/** The folder of a job; made where there is none. */
export const folderOf = async (job: string): Promise<FileSystemDirectoryHandle> =>
  (await films()).getDirectoryHandle(job, { create: true });

/** How often a folder is tried to be removed, and the time between, in milliseconds. */
const TRIES = 20;
const BETWEEN = 250;

/** Removes all that a job has kept here. A file that a worker was writing is free a moment after the worker has ended. */
export async function clearJob(job: string): Promise<void> {
  const all = await films();
  for (let tries = 0; tries < TRIES; tries++) {
    try {
      await all.removeEntry(job, { recursive: true });
      return;
    } catch (error) {
      if (error instanceof DOMException && error.name === 'NotFoundError') return;
    }
    await new Promise((next) => setTimeout(next, BETWEEN));
  }
}

/** The jobs that have something here. */
export async function jobsHere(): Promise<string[]> {
  const found: string[] = [];
  for await (const name of (await films()).keys()) found.push(name);
  return found;
}

/** The name of the file that is made of the parts. */
const RESULT = 'result';

export const resultOf = async (job: string): Promise<FileSystemFileHandle> =>
  (await folderOf(job)).getFileHandle(RESULT, { create: true });

/** What is written to a file takes its place when it is closed, whole. */
export async function sinkOf(file: FileSystemFileHandle): Promise<Sink> {
  const writable = await file.createWritable();
  return new WritableStream<StreamTargetChunk>({
    write: (chunk) => writable.write(chunk),
    close: () => writable.close(),
    abort: () => writable.abort(),
  });
}

export async function storeOf(job: string): Promise<PartStore> {
  const folder = await folderOf(job);
  const file = async (name: string) => (await folder.getFileHandle(name)).getFile();
  return {
    // A file that was begun and never closed is there, and empty.
    has: (name) =>
      file(name).then(
        ({ size }) => size > 0,
        () => false,
      ),
    put: async (name, fill) =>
      fill(await sinkOf(await folder.getFileHandle(name, { create: true }))),
    source: async (name) => new BlobSource(await file(name)),
    bytes: async (name) => new Uint8Array(await (await file(name)).arrayBuffer()),
  };
}

/** Removes the parts of a job, and keeps what was made of them. */
export async function clearParts(job: string): Promise<void> {
  const folder = await folderOf(job);
  const names: string[] = [];
  for await (const name of folder.keys()) if (name !== RESULT) names.push(name);
  for (const name of names) await folder.removeEntry(name);
}
