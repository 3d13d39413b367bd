/** `still` and `scene`: what is on screen at an instant of a programme's own JSON file. */
import { createCanvas, Path2D as NodePath } from '@napi-rs/canvas';
import type { DrawingList } from '@cadence/core/scene/drawing.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { formatTimecode, parseTypedTime } from '@cadence/core/time/timecode.ts';
import { drawScene, type Canvas2D } from '@cadence/paint/drawScene.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';
import { WrongUsage } from './failure.ts';
import { writeWhole } from './files.ts';
import { readProgramme, shelfFor } from './programmeFile.ts';

async function sceneOf(name: string, at: string): Promise<{ list: DrawingList; shelf: FontShelf }> {
  const programme = await readProgramme(name);
  const { frameRate, startTimecode } = programme.facts;
  const time = parseTypedTime(at, frameRate, startTimecode);
  if (time === undefined || time < 0)
    throw new WrongUsage(
      `--at takes a time of the programme, such as ${formatTimecode(startTimecode, frameRate)}.`,
    );
  const shelf = await shelfFor(programme);
  return { list: sceneAt(programme, time, shelf), shelf };
}

/** The JSON of `scene`. */
export async function sceneCommand(name: string, at: string): Promise<object> {
  const { list } = await sceneOf(name, at);
  return list;
}

/** Writes one frame as PNG; the JSON says what was written. */
export async function stillCommand(
  name: string,
  at: string,
  out: string,
  height: number | undefined,
): Promise<object> {
  const { list, shelf } = await sceneOf(name, at);
  const scale = (height ?? list.height) / list.height;
  const size = { width: Math.round(list.width * scale), height: Math.round(list.height * scale) };
  const canvas = createCanvas(size.width, size.height);
  drawScene(
    canvas.getContext('2d') as unknown as Canvas2D,
    list,
    { shelf, makePath: (data) => new NodePath(data) as unknown as Path2D },
    scale,
  );
  await writeWhole(out, await canvas.encode('png'));
  return { file: out, ...size };
}
