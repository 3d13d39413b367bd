/** Files as people name them, read whole and written beside and renamed. */
import { randomUUID } from 'node:crypto';
import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import { decodeText, type DecodedText } from '@cadence/core/formats/decodeText.ts';
import { Unusable } from './failure.ts';

/** The path that a person means who stands where the command was called. */
export const pathOf = (name: string): string =>
  resolve(process.env.INIT_CWD ?? process.cwd(), name);

export async function readBytes(name: string): Promise<Uint8Array> {
  try {
    return await readFile(pathOf(name));
  } catch (error) {
    const missing = (error as NodeJS.ErrnoException).code === 'ENOENT';
    throw new Unusable(
      missing ? 'missing' : 'unreadable',
      missing ? 'There is no such file.' : 'The file cannot be read.',
      name,
    );
  }
}

export const readText = async (name: string): Promise<DecodedText> =>
  decodeText(await readBytes(name));

/** Writes a file so that it is there whole or not at all. */
export async function writeWhole(name: string, content: string | Uint8Array): Promise<void> {
  const path = pathOf(name);
  const arriving = `${path}.${randomUUID()}`;
  try {
    await writeFile(arriving, content);
    await rename(arriving, path);
  } catch (error) {
    await rm(arriving, { force: true });
    throw new Unusable('unwritable', `It cannot be written: ${(error as Error).message}.`, name);
  }
}
