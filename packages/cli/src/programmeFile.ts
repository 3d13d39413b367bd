/** A programme's own JSON file, and the fonts that its text is measured with. */
import { completed } from '@cadence/core/programme/defaults.ts';
import { setIn } from '@cadence/core/scene/travelFigures.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';
import { nodeShelf } from '@cadence/paint/nodeShelf.ts';
import * as yup from 'yup';
import { Unusable } from './failure.ts';
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

/** The fonts of a programme, with all that its cues need of them. */
export async function shelfFor(programme: Programme): Promise<FontShelf> {
  const shelf = nodeShelf();
  const families = new Set(Object.values(programme.strands).map((strand) => strand.style.family));
  for (const cue of Object.values(programme.cues)) {
    if (cue.style.family) families.add(cue.style.family);
  }
  for (const passage of Object.values(programme.passages)) {
    const set = setIn(passage, programme.facts);
    await shelf.prepare(set.family, set.lines);
  }
  const lines = Object.values(programme.cues).flatMap((cue) => cue.text);
  for (const family of families) await shelf.prepare(family, lines);
  return shelf;
}
