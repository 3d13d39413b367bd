/** A programme's own JSON file. */
import { completed } from '@cadence/core/programme/defaults.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import * as yup from 'yup';
import { Unusable } from '@cadence/node/unusable.ts';
import { readBytes } from './files.ts';

const table = yup.object().required();
const file = yup.object({
  programme: yup
    .object({
      facts: yup
        .object({
          frame: yup.object({ width: yup.number().required(), height: yup.number().required() }),
          frameRate: yup.object({ num: yup.number().required(), den: yup.number().required() }),
        })
        .required(),
      materials: table,
      strands: table,
      cues: table,
      pieces: table,
    })
    .required(),
});

/** @throws Unusable where it is no programme's file */
export async function readProgramme(name: string): Promise<Programme> {
  const bytes = await readBytes(name);
  try {
    const json: unknown = JSON.parse(new TextDecoder().decode(bytes));
    return completed(file.validateSync(json, { strict: true }).programme as unknown as Programme);
  } catch (error) {
    const why = error instanceof Error ? error.message : '';
    throw new Unusable('unreadable', `This is not a programme's file: ${why}.`, name);
  }
}
