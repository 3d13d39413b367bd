/** Fonts on Node: the faces of the shelf are read from the npm packages that hold them. */
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { setIn } from '@cadence/core/scene/travelFigures.ts';
import { FontShelf } from '@cadence/paint/fontShelf.ts';
import { SHELF, shelfPath } from '@cadence/paint/shelf.ts';

const require = createRequire(import.meta.url);

/** The file of every face, by {@link shelfPath}. */
export function shelfFiles(): Map<string, string> {
  return new Map(
    SHELF.flatMap((family) => {
      const folder = dirname(require.resolve(`${family.source}/package.json`));
      return family.faces.map(
        (face) => [shelfPath(family, face), join(folder, face.file)] as const,
      );
    }),
  );
}

/** A shelf that reads its faces from disk. */
export function nodeShelf(): FontShelf {
  const files = shelfFiles();
  return new FontShelf(async (path) => {
    const file = files.get(path);
    if (file === undefined) throw new Error(`There is no face ${path} on the shelf.`);
    return readFile(file);
  });
}

/** A shelf with all that the cues and the passages of a programme need of it. */
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
