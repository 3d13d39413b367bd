/** The shelf of fonts on Node: faces are read from the npm packages that hold them. */
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { FontShelf } from './fontShelf.ts';
import { SHELF, shelfPath } from './shelf.ts';

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
