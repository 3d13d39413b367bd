/** Parts of a film in a folder, and files that are written at any of their places. */
import { randomUUID } from 'node:crypto';
import { open, readFile, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { FilePathSource } from 'mediabunny';
import { reasonOf } from './files.ts';
import { Unusable } from './unusable.ts';
import type { PartStore, Sink } from '@cadence/film/write/store.ts';

/** A file that is written from nothing. */
export async function fileSink(path: string): Promise<Sink> {
  const file = await open(path, 'w');
  return new WritableStream({
    async write({ data, position }) {
      for (let at = 0; at < data.length;) {
        const { bytesWritten } = await file.write(data, at, data.length - at, position + at);
        at += bytesWritten;
      }
    },
    close: () => file.close(),
    abort: () => file.close(),
  });
}

/** Fills a file beside its place and renames it: it is there whole or not at all. */
export async function fillWhole(path: string, fill: (sink: Sink) => Promise<void>): Promise<void> {
  // Two may write the same: of both one is there in the end, whole.
  const arriving = `${path}.${randomUUID()}.arriving`;
  try {
    await fill(await fileSink(arriving));
    await rename(arriving, path);
  } catch (error) {
    await rm(arriving, { force: true }).catch(() => undefined);
    if (typeof (error as NodeJS.ErrnoException).code !== 'string') throw error;
    throw new Unusable('unwritable', `The film cannot be written. ${reasonOf(error)}`, path);
  }
}

export const folderStore = (folder: string): PartStore => ({
  has: (name) =>
    stat(join(folder, name)).then(
      () => true,
      () => false,
    ),
  put: (name, fill) => fillWhole(join(folder, name), fill),
  source: async (name) => new FilePathSource(join(folder, name)),
  bytes: (name) => readFile(join(folder, name)),
});
