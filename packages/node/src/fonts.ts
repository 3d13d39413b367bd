/** Fonts on Node: the faces of the shelf are read from the npm packages that hold them. */
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
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

const files = shelfFiles();

let unpacking: Promise<unknown> = Promise.resolve();

/** The TrueType or OpenType font that a WOFF2 file holds. @throws where it is damaged */
export function unpackWoff2(bytes: Uint8Array): Promise<Uint8Array> {
  // What the unpacker gives is in its own memory until it unpacks the next one: one after the other, each copied.
  const unpacked = unpacking.then(async () => {
    const { default: unpacker } = await import('wawoff2');
    return Uint8Array.from(await unpacker.decompress(bytes));
  });
  unpacking = unpacked.catch(() => undefined);
  return unpacked;
}

/** The bytes of a face of the shelf, by {@link shelfPath}. */
export async function readFace(path: string): Promise<Uint8Array> {
  const file = files.get(path);
  if (file === undefined) throw new Error(`There is no face ${path} on the shelf.`);
  const bytes = await readFile(file);
  return file.endsWith('.woff2') ? unpackWoff2(bytes) : bytes;
}

/** A shelf that reads its faces from disk. */
export const nodeShelf = (): FontShelf => new FontShelf(readFace);
