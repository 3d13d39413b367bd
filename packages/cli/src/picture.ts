/** `still` and `scene`: what is on screen at an instant of a programme's own JSON file. */
import { createCanvas, Path2D as NodePath } from '@napi-rs/canvas';
import { completed } from '@cadence/core/programme/defaults.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { sceneAt, type DrawingList } from '@cadence/core/scene/sceneAt.ts';
import { formatTimecode, parseTypedTime } from '@cadence/core/time/timecode.ts';
import { drawScene, type Canvas2D } from '@cadence/paint/drawScene.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';
import { nodeShelf } from '@cadence/paint/nodeShelf.ts';
import * as yup from 'yup';
import { Unusable, WrongUsage } from './failure.ts';
import { readBytes, writeWhole } from './files.ts';

const table = yup.object().required();
const file = yup.object({
  programme: yup
    .object({
      facts: yup
        .object({
          frame: yup.object({ width: yup.number().required(), height: yup.number().required() }),
          frameRate: yup.object({ num: yup.number().required(), den: yup.number().required() }),
        })
        .required(),
      materials: table,
      strands: table,
      cues: table,
      pieces: table,
    })
    .required(),
});

async function readProgramme(name: string): Promise<Programme> {
  const bytes = await readBytes(name);
  try {
    const json: unknown = JSON.parse(new TextDecoder().decode(bytes));
    return completed(file.validateSync(json, { strict: true }).programme as unknown as Programme);
  } catch (error) {
    const why = error instanceof Error ? error.message : '';
    throw new Unusable('unreadable', `This is not a programme's file: ${why}.`, name);
  }
}

async function sceneOf(name: string, at: string): Promise<{ list: DrawingList; shelf: FontShelf }> {
  const programme = await readProgramme(name);
  const { frameRate, startTimecode } = programme.facts;
  const time = parseTypedTime(at, frameRate, startTimecode);
  if (time === undefined || time < 0)
    throw new WrongUsage(
      `--at takes a time of the programme, such as ${formatTimecode(startTimecode, frameRate)}.`,
    );
  const shelf = nodeShelf();
  const families = new Set(Object.values(programme.strands).map((strand) => strand.style.family));
  for (const cue of Object.values(programme.cues)) {
    if (cue.style.family) families.add(cue.style.family);
  }
  const lines = Object.values(programme.cues).flatMap((cue) => cue.text);
  for (const family of families) await shelf.prepare(family, lines);
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
