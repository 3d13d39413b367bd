/** Drawing frames on Node. */
import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createCanvas, loadImage, Path2D as NodePath, type Image } from '@napi-rs/canvas';
import type { Id, Material, Programme } from '@cadence/core/programme/programme.ts';
import type { DrawingList } from '@cadence/core/scene/drawing.ts';
import { drawScene, type Canvas2D } from '@cadence/paint/drawScene.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';

/**
 * A picture of the programme from a folder, by its name or its hash; undefined where it is not there, or is no picture.
 *
 * What was dropped was stored anew, as PNG: the file of its name has other bytes, and is it still. One with the very
 * bytes comes first.
 */
async function pictureIn(folder: string, { name, hash }: Material): Promise<Image | undefined> {
  const files = [name, hash].map((file) => readFile(join(folder, file)).catch(() => undefined));
  const found = (await Promise.all(files)).filter((bytes) => bytes !== undefined);
  const isSame = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex') === hash;
  const bytes = found.find(isSame) ?? found[0];
  return bytes && loadImage(bytes).catch(() => undefined);
}

/** The still pictures that a drawing list needs, from a folder; and the names of those that are not there, or are films. */
export async function picturesFor(
  list: DrawingList,
  { materials }: Programme,
  folder: string,
): Promise<{ readonly images: ReadonlyMap<Id, Image>; readonly without: readonly string[] }> {
  const images = new Map<Id, Image>();
  const without = new Set<string>();
  for (const item of list.items) {
    if (item.kind !== 'image' && item.kind !== 'picture') continue;
    const material = materials[item.material];
    const image = material && item.kind === 'image' ? await pictureIn(folder, material) : undefined;
    if (image) images.set(item.material, image);
    else if (material) without.add(material.name);
  }
  return { images, without: [...without] };
}

/**
 * A drawing list as PNG.
 *
 * @param height  in pixels; that of the frame where none is given
 */
export async function drawPng(
  list: DrawingList,
  { shelf, images }: { readonly shelf: FontShelf; readonly images: ReadonlyMap<Id, Image> },
  height = list.height,
): Promise<{ readonly png: Uint8Array; readonly width: number; readonly height: number }> {
  const scale = height / list.height;
  const size = { width: Math.round(list.width * scale), height: Math.round(list.height * scale) };
  const canvas = createCanvas(size.width, size.height);
  drawScene(
    canvas.getContext('2d') as unknown as Canvas2D,
    list,
    {
      shelf,
      makePath: (data) => new NodePath(data) as unknown as Path2D,
      image: ({ material }) => images.get(material) as unknown as CanvasImageSource | undefined,
    },
    scale,
  );
  return { png: await canvas.encode('png'), ...size };
}
