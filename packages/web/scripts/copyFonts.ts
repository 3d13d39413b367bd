/** Puts the shelf of fonts, the dictionaries and the acoustic model, with their licences, where the interface is served from. */
import { copyFile, mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readFace, shelfFiles } from '@cadence/node/fonts.ts';

const target = fileURLToPath(new URL('../public/fonts/', import.meta.url));
for (const [path, file] of shelfFiles()) {
  const copy = join(target, path);
  await mkdir(dirname(copy), { recursive: true });
  if (file.endsWith('.woff2')) await writeFile(copy, await readFace(path));
  else await copyFile(file, copy);
  const licence = file.endsWith('.woff2') ? '../LICENSE' : '../LICENSE_FONT';
  await copyFile(join(dirname(file), licence), join(dirname(copy), 'LICENCE.txt'));
}

const dictionaries = { british: 'dictionary-en-gb', american: 'dictionary-en' };
const place = fileURLToPath(new URL('../public/dictionaries/', import.meta.url));
await mkdir(place, { recursive: true });
for (const [name, source] of Object.entries(dictionaries)) {
  const folder = dirname(fileURLToPath(import.meta.resolve(source)));
  await copyFile(join(folder, 'index.aff'), join(place, `${name}.aff`));
  await copyFile(join(folder, 'index.dic'), join(place, `${name}.dic`));
  await copyFile(join(folder, 'license'), join(place, `${name}.LICENCE.txt`));
}

const acoustic = fileURLToPath(new URL('../public/acoustic/', import.meta.url));
await mkdir(acoustic, { recursive: true });
for (const name of ['english.gz', 'spelling.gz', 'song.gz', 'LICENCE.txt']) {
  const file = fileURLToPath(import.meta.resolve(`@cadence/core/acoustic/${name}`));
  await copyFile(file, join(acoustic, name));
}
