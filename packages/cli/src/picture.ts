/** `still` and `scene`: what is on screen at an instant of a programme's own JSON file. */
import type { Programme } from '@cadence/core/programme/programme.ts';
import type { DrawingList } from '@cadence/core/scene/drawing.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { formatTimecode, parseTypedTime } from '@cadence/core/time/timecode.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';
import { WrongUsage } from './failure.ts';
import { writeWhole } from './files.ts';
import { drawPng, picturesFor } from '@cadence/node/picture.ts';
import { shelfFor } from '@cadence/node/fonts.ts';
import { folderOf, readProgramme } from './programmeFile.ts';

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
  const { images, without } = await picturesFor(list, programme, folderOf(name, folder));
  const { png, width, height: high } = await drawPng(list, { shelf, images }, height);
  await writeWhole(out, png);
  return { file: out, width, height: high, ...(without.length > 0 && { without }) };
}
