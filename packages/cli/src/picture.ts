/** `still` and `scene`: what is on screen at an instant of a programme's own JSON file. */
import type { Programme } from '@cadence/core/programme/programme.ts';
import type { DrawingList } from '@cadence/core/scene/drawing.ts';
import { inUnits } from '@cadence/core/scene/inUnits.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { formatTimecode, parseTypedTime } from '@cadence/core/time/timecode.ts';
import { Stage } from '@cadence/paint/stage.ts';
import { WrongUsage } from './failure.ts';
import { writeWhole } from './files.ts';
import { drawPng } from '@cadence/node/picture.ts';
import { stageFiles } from '@cadence/node/stageFiles.ts';
import { folderOf, readProgramme } from './programmeFile.ts';

async function sceneOf(
  name: string,
  at: string,
  folder?: string,
): Promise<{ programme: Programme; list: DrawingList; stage: Stage }> {
  const programme = await readProgramme(name);
  const { frameRate, startTimecode } = programme.facts;
  const time = parseTypedTime(at, frameRate, startTimecode);
  if (time === undefined || time < 0)
    throw new WrongUsage(
      `--at takes a time of the programme, such as ${formatTimecode(startTimecode, frameRate)}.`,
    );
  const stage = new Stage(stageFiles(folderOf(name, folder)));
  await stage.fonts(programme);
  return { programme, list: sceneAt(programme, time, stage.shelf), stage };
}

/** The JSON of `scene`; each part of a text that moves is an item of its own. */
export async function sceneCommand(name: string, at: string): Promise<object> {
  const { programme, list, stage } = await sceneOf(name, at);
  return { ...list, items: inUnits(programme, list, stage.shelf) };
}

/**
 * Writes one frame as PNG; the JSON says what was written, and which pictures and films it is without.
 *
 * @param folder  where the pictures and films are; beside the programme's file unless said
 */
export async function stillCommand(
  name: string,
  at: string,
  out: string,
  height: number | undefined,
  folder: string | undefined,
): Promise<object> {
  const { programme, list, stage } = await sceneOf(name, at, folder);
  const pictures = await stage.pictures(list, programme);
  const { png, width, height: high } = await drawPng(list, stage, pictures, height);
  await stage.close();
  await writeWhole(out, png);
  const without = pictures.without.map(({ name }) => name);
  const reasons = pictures.without.map((material) => {
    const trouble = stage.troubleOf(material);
    return trouble instanceof Error ? trouble.message : 'It cannot be read.';
  });
  return { file: out, width, height: high, ...(without.length > 0 && { without, reasons }) };
}
