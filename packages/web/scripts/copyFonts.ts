/** Puts the shelf of fonts, and its licences, where the interface is served from. */
import { copyFile, mkdir } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { shelfFiles } from '@cadence/paint/nodeShelf.ts';

const target = fileURLToPath(new URL('../public/fonts/', import.meta.url));
for (const [path, file] of shelfFiles()) {
  const copy = join(target, path);
  await mkdir(dirname(copy), { recursive: true });
  await copyFile(file, copy);
  await copyFile(join(dirname(file), '../LICENSE_FONT'), join(dirname(copy), 'LICENCE.txt'));
}
