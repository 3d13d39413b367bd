/** The files of a stage on Node: the faces of the shelf from their packages, materials from a folder. */
import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  createCanvas,
  type Canvas,
  ImageData as NodeImageData,
  loadImage,
  Path2D as NodePath,
} from '@napi-rs/canvas';
import { FilePathSource } from 'mediabunny';
import type { Material } from '@cadence/core/programme/programme.ts';
import { openFilm } from '@cadence/film/frames.ts';
import type { Files, FilmFrames, Surfaces } from '@cadence/paint/stage.ts';
import { keptAlive, withCodecs } from './codecs.ts';
import { readFace } from './fonts.ts';
import { fileOf } from './material.ts';
import { Unusable } from './unusable.ts';

export const surfaces: Surfaces = {
  Pixels: NodeImageData as unknown as typeof ImageData,
  make: (width, height) => createCanvas(width, height) as unknown as OffscreenCanvas,
  fromPixels(pixels, width, height) {
    const surface = createCanvas(width, height);
    surface.getContext('2d').putImageData(new NodeImageData(pixels, width, height), 0, 0);
    return surface as unknown as CanvasImageSource;
  },
  png: (surface) => (surface as unknown as Canvas).encode('png'),
};

/**
 * A still picture from a folder, by its name or its hash.
 *
 * What was dropped was stored anew, as PNG: the file of its name has other bytes, and is it still. One with the very
 * bytes comes first.
 */
async function pictureIn(folder: string, { name, hash }: Material): Promise<CanvasImageSource> {
  const files = [name, hash].map((file) => readFile(join(folder, file)).catch(() => undefined));
  const found = (await Promise.all(files)).filter((bytes) => bytes !== undefined);
  const isSame = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex') === hash;
  const bytes = found.find(isSame) ?? found[0];
  if (!bytes)
    throw new Unusable('missing', `The file of “${name}” is not in ${folder}.`, join(folder, name));
  return (await loadImage(bytes)) as unknown as CanvasImageSource;
}

async function filmIn(folder: string, material: Material): Promise<FilmFrames> {
  const path = await fileOf(folder, material);
  await withCodecs();
  const frames = await keptAlive(() => openFilm(new FilePathSource(path), surfaces));
  return {
    frameAt: (time) => keptAlive(() => frames.frameAt(time)),
    planesAt: (time) => keptAlive(() => frames.planesAt(time)),
    close: () => frames.close(),
  };
}

/** @param folder  where the files of materials are, by their names or hashes */
export const stageFiles = (folder: string): Files => ({
  face: readFace,
  font: async (material) => readFile(await fileOf(folder, material)),
  image: (material) => pictureIn(folder, material),
  film: (material) => filmIn(folder, material),
  makeCanvas: surfaces.make,
  makePath: (data) => new NodePath(data) as unknown as Path2D,
});
