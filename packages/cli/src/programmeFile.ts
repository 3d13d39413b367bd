/** A programme's own JSON file. */
import type { Programme } from '@cadence/core/programme/programme.ts';
import { programmeOfFile } from '@cadence/core/programme/schema.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { readBytes } from './files.ts';

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
