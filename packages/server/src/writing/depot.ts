/**
 * The depot: where jobs find material and leave what they write, on this machine or for many.
 *
 * A key names a file, such as `material/HASH` or `films/JOB/part-00000`. Work is done on files of this machine, in
 * {@link Depot.here}; the depot fetches what lies elsewhere, and keeps what was made.
 */
import { randomUUID } from 'node:crypto';
import { copyFile, mkdir, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Id } from '@cadence/core/programme/programme.ts';

export interface Depot {
  /** The folder of this machine under which a key is a file, once it was fetched. */
  readonly here: string;
  has(key: string): Promise<boolean>;
  /** Has the file of a key here. Rejects where there is none. */
  fetch(key: string): Promise<void>;
  /** Keeps what lies here under a key, for all machines; whole or not at all. */
  keep(key: string): Promise<void>;
  /** Puts bytes under a key. */
  put(key: string, bytes: string): Promise<void>;
  /** Puts a file of this machine under a key, unless it is there. */
  take(key: string, path: string): Promise<void>;
  /** Removes all of a job, or all but one file. */
  clear(job: Id, except?: string): Promise<void>;
  /** The jobs of which something is there; none where servers share the depot, which cannot know those of others. */
  jobs(): Promise<Id[]>;
  close(): Promise<void>;
}

export const MATERIAL = 'material';
const FILMS = 'films';

export const materialKey = (hash: string): string => `${MATERIAL}/${hash}`;
export const jobKey = (job: Id, name: string): string => `${FILMS}/${job}/${name}`;
/** Where the files of a job are on this machine. */
export const folderOf = ({ here }: Depot, job: Id): string => join(here, FILMS, job);
/** Where the files of material are on this machine. */
export const materialIn = ({ here }: Depot): string => join(here, MATERIAL);

/** Writes a file beside its place and renames it: it is there whole or not at all. */
export async function writeWhole(path: string, fill: (arriving: string) => Promise<unknown>) {
  await mkdir(dirname(path), { recursive: true });
  const arriving = `${path}.${randomUUID()}.arriving`;
  try {
    await fill(arriving);
    await rename(arriving, path);
  } finally {
    await rm(arriving, { force: true });
  }
}

/** Removes a folder, or all in it but one file. */
export async function clearFolder(folder: string, except?: string): Promise<void> {
  const names = except === undefined ? [''] : await readdir(folder).catch(() => []);
  for (const name of names)
    if (name !== except) await rm(join(folder, name), { recursive: true, force: true });
}

export const isThere = (path: string): Promise<boolean> =>
  stat(path).then(
    () => true,
    () => false,
  );

/** A depot in a folder: that of the server, or one that several machines share. */
export class FolderDepot implements Depot {
  readonly here: string;
  readonly #isShared: boolean;

  constructor(folder: string, isShared = false) {
    this.here = folder;
    this.#isShared = isShared;
  }

  has(key: string): Promise<boolean> {
    return isThere(join(this.here, key));
  }

  async fetch(key: string): Promise<void> {
    await stat(join(this.here, key));
  }

  async keep(key: string): Promise<void> {
    await this.fetch(key);
  }

  put(key: string, bytes: string): Promise<void> {
    return writeWhole(join(this.here, key), (arriving) => writeFile(arriving, bytes));
  }

  async take(key: string, path: string): Promise<void> {
    if (await this.has(key)) return;
    await writeWhole(join(this.here, key), (arriving) => copyFile(path, arriving));
  }

  async clear(job: Id, except?: string): Promise<void> {
    await clearFolder(folderOf(this, job), except);
  }

  async jobs(): Promise<Id[]> {
    return this.#isShared ? [] : readdir(join(this.here, FILMS)).catch(() => []);
  }

  async close(): Promise<void> {
    // A folder stays as it is.
  }
}
