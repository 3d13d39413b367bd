/** Draws the samples on Node and prints their digests. */
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createCanvas, Path2D as NodePath } from '@napi-rs/canvas';
import { FilePathSource } from 'mediabunny';
import { openFilm } from '@cadence/film/frames.ts';
import { keptAlive, withCodecs } from '@cadence/node/codecs.ts';
import { nodeShelf } from '@cadence/node/fonts.ts';
import { surfaces } from '@cadence/node/stageFiles.ts';
import { drawFilms, drawSamples } from './samples.ts';

const filmFolder = fileURLToPath(new URL('../../packages/film/samples/', import.meta.url));

const canvas = (width: number, height: number) =>
  createCanvas(width, height).getContext('2d') as unknown as CanvasRenderingContext2D;
const texts = await drawSamples(
  nodeShelf(),
  (data) => new NodePath(data) as unknown as Path2D,
  canvas,
);
await withCodecs();
const films = await keptAlive(() =>
  drawFilms((name) => openFilm(new FilePathSource(join(filmFolder, name)), surfaces), canvas),
);
const drawn = [...texts, ...films];
const digests = drawn.map(({ name, pixels }) => [
  name,
  createHash('sha256').update(new Uint8Array(pixels)).digest('hex'),
]);
process.stdout.write(JSON.stringify(Object.fromEntries(digests)));
