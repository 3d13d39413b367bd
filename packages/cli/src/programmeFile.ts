/** A programme's own JSON file. */
import { dirname } from 'node:path';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { programmeOfFile } from '@cadence/core/programme/schema.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { pathOf, readBytes } from './files.ts';

/** @throws Unusable where it is no programme's file */
export async function readProgramme(name: string): Promise<Programme> {
  const bytes = await readBytes(name);
  try {
    return programmeOfFile(JSON.parse(new TextDecoder().decode(bytes)));
  } catch (error) {
    const why = error instanceof Error ? error.message.replace(/\.$/, '') : '';
    throw new Unusable('unreadable', `This is not a programme's file: ${why}.`, name);
  }
}

/** The folder in which the files of a programme's materials are: beside it, where none is given. */
export const folderOf = (file: string, given: string | undefined): string =>
  given === undefined ? dirname(pathOf(file)) : pathOf(given);
