/** `still` and `scene`: what is on screen at an instant of a programme's own JSON file. */
import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { createCanvas, loadImage, Path2D as NodePath, type Image } from '@napi-rs/canvas';
import type { Id, Material, Programme } from '@cadence/core/programme/programme.ts';
import type { DrawingList } from '@cadence/core/scene/drawing.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { formatTimecode, parseTypedTime } from '@cadence/core/time/timecode.ts';
import { drawScene, type Canvas2D } from '@cadence/paint/drawScene.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';
import { WrongUsage } from './failure.ts';
import { pathOf, writeWhole } from './files.ts';
import { readProgramme, shelfFor } from './programmeFile.ts';

async function sceneOf(
  name: string,
  at: string,
): Promise<{ programme: Programme; list: DrawingList; shelf: FontShelf }> {
  const programme = await readProgramme(name);
  const { frameRate, startTimecode } = programme.facts;
  const time = parseTypedTime(at, frameRate, startTimecode);
  if (time === undefined || time < 0)
    throw new WrongUsage(
      `--at takes a time of the programme, such as ${formatTimecode(startTimecode, frameRate)}.`,
    );
  const shelf = await shelfFor(programme);
  return { programme, list: sceneAt(programme, time, shelf), shelf };
}

/** The JSON of `scene`. */
export async function sceneCommand(name: string, at: string): Promise<object> {
  const { list } = await sceneOf(name, at);
  return list;
}

/** A picture of the programme from a folder, by its name or its hash; undefined where its content is not there or no picture. */
async function pictureIn(folder: string, { name, hash }: Material): Promise<Image | undefined> {
  for (const file of [name, hash]) {
    const bytes = await readFile(join(folder, file)).catch(() => undefined);
    if (bytes && createHash('sha256').update(bytes).digest('hex') === hash)
      return loadImage(bytes).catch(() => undefined);
  }
  return undefined;
}

/**
 * Writes one frame as PNG; the JSON says what was written, and which pictures it is without. Films are never drawn.
 *
 * @param folder  where the still pictures are; beside the programme's file unless said
 */
export async function stillCommand(
  name: string,
  at: string,
  out: string,
  height: number | undefined,
  folder: string | undefined,
): Promise<object> {
  const { programme, list, shelf } = await sceneOf(name, at);
  const images = new Map<Id, Image>();
  const without = new Set<string>();
  for (const item of list.items) {
    if (item.kind !== 'image' && item.kind !== 'picture') continue;
    const material = programme.materials[item.material];
    const from = folder === undefined ? dirname(pathOf(name)) : pathOf(folder);
    const image = material && item.kind === 'image' ? await pictureIn(from, material) : undefined;
    if (image) images.set(item.material, image);
    else if (material) without.add(material.name);
  }
  const scale = (height ?? list.height) / list.height;
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
  await writeWhole(out, await canvas.encode('png'));
  return { file: out, ...size, ...(without.size > 0 && { without: [...without] }) };
}
