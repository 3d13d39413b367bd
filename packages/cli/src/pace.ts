/** `pace roll` and `pace crawl`: how fast the text of a sheet travels, and what would make it fit. */
import { Unreadable } from '@cadence/core/formats/captions.ts';
import { sheetFromFile } from '@cadence/core/formats/sheet/fromFile.ts';
import { DEFAULT_PROFILE } from '@cadence/core/pace/profile.ts';
import { fewestOut, fitOf } from '@cadence/core/pace/fit.ts';
import {
  atSpeed,
  evenSpeeds,
  evenStep,
  framesInSight,
  inFrames,
  isEven,
  judderOf,
  largestSize,
  longestToRead,
  wordsPassing,
  type Travel,
} from '@cadence/core/pace/travel.ts';
import { crawlLook, rollLook } from '@cadence/core/programme/passage.ts';
import { itemsOf, layOutCrawl } from '@cadence/core/scene/crawl.ts';
import { layOutRoll } from '@cadence/core/scene/roll.ts';
import {
  howManyMayGo,
  lastToGo,
  leaveOut,
  unitsOf,
  type Unit,
} from '@cadence/core/text/leaveOut.ts';
import { readSheet, type ReadSheet } from '@cadence/core/text/sheet.ts';
import { countWords } from '@cadence/core/text/words.ts';
import { parseRate, type FrameRate } from '@cadence/core/time/frameRate.ts';
import { nodeShelf } from '@cadence/paint/nodeShelf.ts';
import { Unusable, WrongUsage } from './failure.ts';
import { readBytes } from './files.ts';

export interface PaceOptions {
  readonly rate?: string | undefined;
  readonly frame?: string | undefined;
  readonly size?: string | undefined;
  readonly duration?: string | undefined;
  readonly speed?: string | undefined;
  readonly window?: string | undefined;
}

const [SMALLEST, LARGEST] = [4, 1000];
/** Where no speed and no time is given, a line stays in sight for so many seconds at least. */
const IN_SIGHT = 5;

function numberOf(text: string | undefined, option: string, most: number): number | undefined {
  if (text === undefined) return undefined;
  const value = Number(text);
  if (!(value > 0 && value <= most))
    throw new WrongUsage(`${option} takes a number over 0 and up to ${most}.`);
  return value;
}

interface Asked {
  readonly rate: FrameRate;
  /** Frames a second. */
  readonly fps: number;
  readonly frame: { readonly width: number; readonly height: number };
  readonly size: number | undefined;
  readonly frames: number | undefined;
  readonly speed: number | undefined;
}

function asked(options: PaceOptions): Asked {
  const rate = parseRate(options.rate ?? '25');
  if (!rate) throw new WrongUsage(`--rate takes frames a second, not ${options.rate ?? ''}.`);
  const [, width, height] = /^(\d{1,5})[x×](\d{1,5})$/.exec(options.frame ?? '1920x1080') ?? [];
  if (!(Number(width) >= 16 && Number(height) >= 16))
    throw new WrongUsage('--frame takes pixels, such as 1920x1080.');
  const fps = rate.num / rate.den;
  const duration = numberOf(options.duration, '--duration', 86_400);
  return {
    rate,
    fps,
    frame: { width: Number(width), height: Number(height) },
    size: numberOf(options.size, '--size', LARGEST),
    frames: duration === undefined ? undefined : Math.max(1, Math.round(duration * fps)),
    speed: numberOf(options.speed, '--speed', 10_000),
  };
}

/** A sheet and its text. */
async function sheetIn(file: string): Promise<ReadSheet & { readonly text: string }> {
  try {
    const { text } = await sheetFromFile(await readBytes(file), file);
    return { ...readSheet(text), text };
  } catch (error) {
    if (error instanceof Unreadable) throw new Unusable('no text', error.message, file);
    throw error;
  }
}

/** Of size, time and speed two are given, and the third follows; a size that is not given may be a usual one. */
function solved(
  { size, frames, speed, fps, rate }: Asked,
  {
    usual,
    window,
    lengthAt,
    sizeFollows,
  }: {
    usual: number;
    window: number;
    lengthAt: (size: number) => number;
    sizeFollows: boolean;
  },
): { size: number; length: number; travel: Travel } {
  const sized = (own: number) => ({ size: own, length: lengthAt(own) });
  if (frames !== undefined && speed !== undefined && size === undefined && sizeFollows) {
    const most = speed * frames - window;
    const own = largestSize(lengthAt, most, { from: SMALLEST, to: LARGEST });
    if (own === undefined)
      throw new WrongUsage('No size is small enough to be through in that time at that speed.');
    const { length } = sized(own);
    return { size: own, length, travel: { distance: length + window, frames, speed } };
  }
  const { size: own, length } = sized(size ?? usual);
  const distance = length + window;
  if (speed !== undefined) {
    const travel = atSpeed(distance, speed);
    return { size: own, length, travel: frames === undefined ? travel : { ...travel, frames } };
  }
  if (frames !== undefined) return { size: own, length, travel: inFrames(distance, frames) };
  const step = evenStep(rate);
  const steady = Math.max(step, Math.floor(window / (IN_SIGHT * fps) / step) * step);
  return { size: own, length, travel: atSpeed(distance, steady) };
}

/** A figure with nine decimals kept. */
const figure = (value: number): number => Number(value.toFixed(9));

/** What is told of any travel. */
function told(
  { rate, fps }: Asked,
  { distance, frames, speed }: Travel,
  more: { window: number; texts: readonly { readonly text: string }[]; length: number },
): object {
  const step = evenStep(rate);
  const longest = longestToRead(more.texts, DEFAULT_PROFILE.charactersASecond);
  const inSight = figure(framesInSight(more.window, speed) / fps);
  return {
    travel: figure(distance),
    duration: figure(frames / fps),
    frames,
    speedPxPerFrame: figure(speed),
    wholePixel: isEven(speed, step),
    judder: figure(judderOf(speed, step)),
    onScreen: { line: inSight, longestWord: inSight },
    ...(longest && { longest: { text: longest.of.text, needs: figure(longest.needs) } }),
    wordsPerMinute: figure(wordsPassing(wordsIn(more.texts), more.length, speed, fps)),
    options: evenSpeeds(distance, speed, step).map((each) => ({
      speedPxPerFrame: each.speed,
      duration: figure(each.frames / fps),
      frames: each.frames,
    })),
  };
}

/** What can be left out, how long the rest is without some lines of the sheet, and by what places those are told. */
interface MayGo {
  readonly units: readonly Unit[];
  readonly lengthWithout: (lines: readonly number[]) => number;
  readonly placesOf: (lines: readonly number[]) => number[];
}

/** What would make it fit, where both its time and its speed are held and it does not. */
function fitted(
  { fps, frames, speed }: Asked,
  found: { size: number; length: number; window: number; lengthAt: (size: number) => number },
  { units, lengthWithout, placesOf }: MayGo,
): object {
  if (frames === undefined || speed === undefined) return {};
  const fit = fitOf({ ...found, frames, speed });
  if (!fit) return {};
  const { most, moreFrames, size, speed: faster } = fit;
  const linesOf = (count: number): number[] =>
    lastToGo(units, count).flatMap((place) => units[place]?.lines ?? []);
  const out = fewestOut(howManyMayGo(units), (count) => lengthWithout(linesOf(count)), most);
  return {
    fit: {
      leaveOut: out === undefined ? null : placesOf(linesOf(out)),
      moreTime: figure(moreFrames / fps),
      size: size ?? null,
      speedPxPerFrame: faster === undefined ? null : figure(faster),
    },
  };
}

const wordsIn = (texts: readonly { readonly text: string }[]): number =>
  texts.reduce((sum, { text }) => sum + countWords(text), 0);

/** The JSON of `pace roll`. */
export async function paceRollCommand(file: string, options: PaceOptions): Promise<object> {
  const wanted = asked(options);
  const { text, parts, separator, notUnderstood } = await sheetIn(file);
  const { height: window } = wanted.frame;
  const look = rollLook(window);
  const lengthAt = (size: number) => layOutRoll(parts, { ...look, size }).height;
  const { size, length, travel } = solved(wanted, {
    usual: look.size,
    window,
    lengthAt,
    sizeFollows: true,
  });
  const { texts } = layOutRoll(parts, { ...look, size });
  const units = unitsOf({ parts });
  const lengthWithout = (lines: readonly number[]): number => {
    const rest = readSheet(leaveOut(text, lines), separator?.separator);
    return layOutRoll(rest.parts, { ...look, size }).height;
  };
  const placesOf = (lines: readonly number[]): number[] =>
    units.flatMap((unit, place) => (unit.lines.some((line) => lines.includes(line)) ? place : []));
  return {
    height: figure(length),
    size,
    ...told(wanted, travel, { window, texts, length }),
    ...(separator && { separator: separator.separator }),
    ...(notUnderstood.length > 0 && { notUnderstood }),
    ...fitted(wanted, { size, length, window, lengthAt }, { units, lengthWithout, placesOf }),
  };
}

/** The JSON of `pace crawl`. */
export async function paceCrawlCommand(file: string, options: PaceOptions): Promise<object> {
  const wanted = asked(options);
  const sheet = await sheetIn(file);
  const { width, height } = wanted.frame;
  const [, from = '0', to = String(width)] =
    options.window === undefined ? [] : (/^(\d+),(\d+)$/.exec(options.window) ?? ['', 'x', 'x']);
  const window = Number(to) - Number(from);
  if (!(window > 0)) throw new WrongUsage('--window takes two pixels across, such as 120,1800.');
  const items = itemsOf(sheet);
  const look = crawlLook(height);
  const shelf = nodeShelf();
  await shelf.prepare(look.family, [
    ...items.map(({ text }) => [{ text }]),
    [{ text: look.between }],
  ]);
  const laidAt = (size: number) => layOutCrawl(items, { ...look, size }, shelf);
  const lengthAt = (size: number) => laidAt(size).width;
  const { size, length, travel } = solved(wanted, {
    usual: look.size,
    window,
    lengthAt,
    sizeFollows: false,
  });
  const laid = laidAt(size);
  // Of a crawl a row goes whole, and what goes is told by the places of the items.
  const units = unitsOf(sheet, true);
  const lengthWithout = (lines: readonly number[]): number => {
    const left = items.filter(({ line }) => !lines.includes(line));
    return layOutCrawl(left, { ...look, size }, shelf).width;
  };
  const placesOf = (lines: readonly number[]): number[] =>
    items.flatMap(({ line }, place) => (lines.includes(line) ? place : []));
  return {
    width: figure(length),
    size,
    items: laid.items.map((item) => ({
      text: item.text,
      from: figure(item.from),
      width: figure(item.width),
    })),
    ...told(wanted, travel, { window, texts: items, length }),
    ...fitted(wanted, { size, length, window, lengthAt }, { units, lengthWithout, placesOf }),
  };
}
