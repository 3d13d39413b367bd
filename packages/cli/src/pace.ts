/**
 * `pace roll` and `pace crawl`: how fast the text of a sheet travels, and what would make it fit. The sheet is put on a
 * made-up programme by the edits of the interface, and its figures are those that the interface shows.
 */
import { Unreadable } from '@cadence/core/formats/captions.ts';
import { sheetFromFile } from '@cadence/core/formats/sheet/fromFile.ts';
import { evenStep, isEven } from '@cadence/core/pace/travel.ts';
import { apply } from '@cadence/core/programme/record/apply.ts';
import { create } from '@cadence/core/programme/record/change.ts';
import { newProgramme } from '@cadence/core/programme/defaults.ts';
import {
  cueOf,
  firstSpeed,
  placePassage,
  SMALLEST,
} from '@cadence/core/programme/edits/programme/passages.ts';
import {
  sizeOf,
  USUAL_JOURNEY,
  type CrawlLook,
  type Passage,
  type RollLook,
} from '@cadence/core/programme/passage.ts';
import type { Facts, TravellingKind } from '@cadence/core/programme/programme.ts';
import {
  figuresOf,
  fitWithin,
  leftOutToFit,
  setIn,
  type TravelFigures,
} from '@cadence/core/scene/travelFigures.ts';
import { itemsOf } from '@cadence/core/scene/crawl.ts';
import { laidCrawl, sheetOf, wayOf } from '@cadence/core/scene/travelling.ts';
import { unitsOf } from '@cadence/core/text/leaveOut.ts';
import { parseRate } from '@cadence/core/time/frameRate.ts';
import { fromSeconds, ZERO } from '@cadence/core/time/ticks.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';
import { nodeShelf } from '@cadence/node/fonts.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { WrongUsage } from './failure.ts';
import { readBytes } from './files.ts';

export interface PaceOptions {
  readonly rate?: string | undefined;
  readonly frame?: string | undefined;
  readonly size?: string | undefined;
  readonly duration?: string | undefined;
  readonly speed?: string | undefined;
  readonly window?: string | undefined;
}

/** The longest time a programme may have, in seconds, and the largest size and speed, in pixels. */
const DAY = 86_400;
const [LARGEST_SIZE, FASTEST] = [4000, 10_000];

function numberOf(text: string | undefined, option: string, most: number): number | undefined {
  if (text === undefined) return undefined;
  const value = Number(text);
  if (!(value > 0 && value <= most))
    throw new WrongUsage(`${option} takes a number over 0 and up to ${most}.`);
  return value;
}

/** What is held of size (pixels), time (frames) and speed (pixels a frame); and the programme it is held on. */
interface Held {
  readonly facts: Facts;
  readonly size: number | undefined;
  readonly frames: number | undefined;
  readonly speed: number | undefined;
}

function heldBy(options: PaceOptions): Held {
  const frameRate = parseRate(options.rate ?? '25');
  if (!frameRate) throw new WrongUsage(`--rate takes frames a second, not ${options.rate ?? ''}.`);
  const [, width, height] = /^(\d{1,5})[x×](\d{1,5})$/.exec(options.frame ?? '1920x1080') ?? [];
  const frame = { width: Number(width), height: Number(height) };
  if (!(frame.width >= 16 && frame.height >= 16))
    throw new WrongUsage('--frame takes pixels, such as 1920x1080.');
  const duration = numberOf(options.duration, '--duration', DAY);
  const fps = frameRate.num / frameRate.den;
  return {
    facts: { ...newProgramme('p', '', 's').facts, frame, frameRate, length: fromSeconds(DAY) },
    size: numberOf(options.size, '--size', LARGEST_SIZE),
    frames: duration === undefined ? undefined : Math.max(1, Math.round(duration * fps)),
    speed: numberOf(options.speed, '--speed', FASTEST),
  };
}

/** The text of a sheet's file. */
async function sheetIn(file: string): Promise<string> {
  try {
    return (await sheetFromFile(await readBytes(file), file)).text;
  } catch (error) {
    if (error instanceof Unreadable) throw new Unusable('no text', error.message, file);
    throw error;
  }
}

/** A passage as it travels with what is held, and its figures. */
interface Solved {
  readonly passage: Passage;
  readonly figures: TravelFigures;
  readonly frames: number;
  readonly shelf: FontShelf;
}

async function solved(
  kind: TravellingKind,
  sheet: string,
  { facts, size, frames, speed }: Held,
  look: Partial<RollLook> | Partial<CrawlLook>,
): Promise<Solved> {
  // Of a roll the size follows where it is not held; a crawl has its usual one.
  const sizeFollows =
    kind === 'roll' && frames !== undefined && speed !== undefined && size === undefined;
  const follows = sizeFollows
    ? 'size'
    : frames === undefined || speed !== undefined
      ? 'time'
      : 'speed';
  const begun = {
    id: 'passage',
    kind,
    title: '',
    sheet,
    look: { ...look, ...(size !== undefined && { size }) },
    journey: { ...USUAL_JOURNEY, follows, speed: speed ?? firstSpeed(kind, facts) },
  } as Passage;
  const shelf = nodeShelf();
  const set = setIn(begun, facts);
  await shelf.prepare(set.family, set.lines);
  const measure = (passage: Passage) => wayOf(passage, facts.frame, shelf).distance;
  const empty = apply({ ...newProgramme('p', '', 's'), facts }, [create('passage', begun)]);
  let id = 0;
  const newId = () => `new${String(id++)}`;
  const edit = placePassage(
    empty,
    begun.id,
    // Time that is held beside the speed is not placed: it is what has to be fitted into.
    { start: ZERO, ...(frames !== undefined && follows !== 'time' && { frames }) },
    measure,
    newId,
  );
  if (sizeFollows && edit.note !== undefined)
    throw new WrongUsage(
      `No size from ${SMALLEST} px on is small enough to be through in that time at that speed.`,
    );
  const placed = apply(empty, edit.changes);
  const passage = placed.passages[begun.id] ?? begun;
  const figures = figuresOf(facts, passage, cueOf(placed, begun.id), shelf);
  return { passage, figures, frames: frames ?? figures.travel.frames, shelf };
}

/** A figure with nine decimals kept. */
const figure = (value: number): number => Number(value.toFixed(9));

/** What is told of any travel. */
function travelJson({ facts }: Held, { passage, figures, frames }: Solved): object {
  const fps = facts.frameRate.num / facts.frameRate.den;
  const { travel, judder, inSight, longest, wordsAMinute, options } = figures;
  return {
    size: sizeOf(passage, facts),
    travel: figure(travel.distance),
    duration: figure(frames / fps),
    frames,
    speedPxPerFrame: figure(travel.speed),
    wholePixel: isEven(travel.speed, evenStep(facts.frameRate)),
    judder: figure(judder),
    onScreen: { line: figure(inSight), longestWord: figure(inSight) },
    ...(longest && { longest: { text: longest.of.text, needs: figure(longest.needs) } }),
    wordsPerMinute: figure(wordsAMinute),
    options: options.map((each) => ({
      speedPxPerFrame: each.speed,
      duration: figure(each.frames / fps),
      frames: each.frames,
    })),
  };
}

/**
 * What would make it fit, where both its time and its speed are held and it does not.
 *
 * @param placesOf  by which places lines of the sheet are told
 */
function fitJson(
  { facts, frames, speed }: Held,
  { passage, shelf }: Solved,
  placesOf: (lines: readonly number[]) => number[],
): object {
  if (frames === undefined || speed === undefined) return {};
  const fit = fitWithin(facts, passage, { frames, speed }, shelf);
  if (!fit) return {};
  const out = leftOutToFit(passage, fit.most, facts.frame, shelf);
  const fps = facts.frameRate.num / facts.frameRate.den;
  return {
    fit: {
      leaveOut: out === undefined ? null : placesOf(out.lines),
      moreTime: figure(fit.moreFrames / fps),
      size: fit.size ?? null,
      speedPxPerFrame: fit.speed === undefined ? null : figure(fit.speed),
    },
  };
}

/** The JSON of `pace roll`. */
export async function paceRollCommand(file: string, options: PaceOptions): Promise<object> {
  const held = heldBy(options);
  const roll = await solved('roll', await sheetIn(file), held, {});
  const { parts, separator, notUnderstood } = sheetOf(roll.passage);
  const units = unitsOf({ parts });
  const placesOf = (lines: readonly number[]): number[] =>
    units.flatMap((unit, place) => (unit.lines.some((line) => lines.includes(line)) ? place : []));
  return {
    height: figure(roll.figures.way.length),
    ...travelJson(held, roll),
    ...(separator && { separator: separator.separator }),
    ...(notUnderstood.length > 0 && { notUnderstood }),
    ...fitJson(held, roll, placesOf),
  };
}

/** The JSON of `pace crawl`. */
export async function paceCrawlCommand(file: string, options: PaceOptions): Promise<object> {
  const held = heldBy(options);
  const { frame } = held.facts;
  const [, from = '0', to = String(frame.width)] =
    options.window === undefined ? [] : (/^(\d+),(\d+)$/.exec(options.window) ?? ['', 'x', 'x']);
  const insets = { insetLeft: Number(from), insetRight: frame.width - Number(to) };
  if (!(Number(to) > Number(from)) || insets.insetRight < 0)
    throw new WrongUsage(
      `--window takes two pixels across, up to ${frame.width}, such as 120,${frame.width - 120}.`,
    );
  const crawl = await solved('crawl', await sheetIn(file), held, insets);
  if (crawl.passage.kind !== 'crawl') throw new Error('A crawl became something else.');
  const { items, once } = laidCrawl(crawl.passage, frame, crawl.shelf);
  // Of a crawl what goes is told by the places of the items.
  const placesOf = (lines: readonly number[]): number[] =>
    itemsOf(sheetOf(crawl.passage)).flatMap(({ line }, place) =>
      lines.includes(line) ? place : [],
    );
  return {
    width: figure(once),
    items: items.map((item) => ({
      text: item.text,
      from: figure(item.from),
      width: figure(item.width),
    })),
    ...travelJson(held, crawl),
    ...fitJson(held, crawl, placesOf),
  };
}
