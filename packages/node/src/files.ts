/** Files read whole, and written so that they are there whole or not at all. */
import { randomUUID } from 'node:crypto';
import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import { Unusable } from './unusable.ts';

/** What the system's errors about files mean, as sentences. */
const REASONS: Readonly<Record<string, string>> = {
  ENOENT: 'There is no such folder.',
  ENOTDIR: 'Part of its path is a file, not a folder.',
  EISDIR: 'It is a folder.',
  EACCES: 'You are not allowed to.',
  EPERM: 'You are not allowed to.',
  EROFS: 'It is on a disk that can only be read.',
  ENOSPC: 'The disk is full.',
  EDQUOT: 'The disk is full.',
  ENAMETOOLONG: 'Its name is too long.',
};

/** Why the system could not do something with a file, as a sentence. */
export function reasonOf(error: unknown): string {
  const { code = '', message } = error as NodeJS.ErrnoException;
  return REASONS[code] ?? `${message}.`;
}

/**
 * @param shownAs  how an error names the file
 * @throws Unusable where there is no such file, or it cannot be read
 */
export async function readBytes(path: string, shownAs = path): Promise<Uint8Array> {
  try {
    return await readFile(path);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'ENOENT') throw new Unusable('missing', 'There is no such file.', shownAs);
    throw new Unusable('unreadable', `The file cannot be read. ${reasonOf(error)}`, shownAs);
  }
}

/** What a file is to hold: at once, or in pieces as they are made. */
export type Content = string | Uint8Array | AsyncIterable<Uint8Array>;

/**
 * Writes a file beside its place and renames it: it is there whole or not at all.
 *
 * @param shownAs  how an error names the file
 * @throws Unusable where it cannot be written
 */
export async function writeWhole(path: string, content: Content, shownAs = path): Promise<void> {
  const arriving = `${path}.${randomUUID()}`;
  try {
    await writeFile(arriving, content);
    await rename(arriving, path);
  } catch (error) {
    // Where nothing was written there is nothing to remove, which may fail for the same reason.
    await rm(arriving, { force: true }).catch(() => undefined);
    // What was to be written could not be made.
    if (error instanceof Unusable) throw error;
    throw new Unusable('unwritable', `The file cannot be written. ${reasonOf(error)}`, shownAs);
  }
}
