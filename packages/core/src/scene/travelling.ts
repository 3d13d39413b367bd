/** How far a passage travels, and what of it is in sight at a frame. */
import {
  inFrames,
  movingFrames,
  offsetAt,
  STEADY,
  type Motion,
  type Travel,
} from '../pace/travel.ts';
import {
  lookOfCrawl,
  lookOfRoll,
  type Crawl,
  type CrawlLook,
  type Passage,
  type Roll,
  type RollLook,
} from '../programme/passage.ts';
import type { Cue, Facts, Programme } from '../programme/programme.ts';
import { readSheet, type ReadSheet } from '../text/sheet/sheet.ts';
import { countFrames, frameAt } from '../time/frameRate.ts';
import { subtract, type Ticks } from '../time/ticks.ts';
import { itemsOf, layOutCrawl, type PlacedItem } from './crawl.ts';
import { layOutRoll, type RollLayout } from './roll.ts';
import { shapedLine } from './shapedLines.ts';
import type { TextShaper } from './shaper.ts';

type FrameSize = Facts['frame'];

/** The last sheets that were read: passages that differ in how they look say the same. */
const recentSheets: { text: string; separator: string | null; read: ReadSheet }[] = [];
const MOST_RECENT = 4;

/** A sheet as it is understood. The last ones read are cached. */
export function sheetOf({
  sheet: text,
  separator = null,
}: Pick<Passage, 'sheet' | 'separator'>): ReadSheet {
  const found = recentSheets.find((each) => each.text === text && each.separator === separator);
  if (found) return found.read;
  const read = readSheet(text, separator ?? undefined);
  recentSheets.unshift({ text, separator, read });
  recentSheets.length = Math.min(recentSheets.length, MOST_RECENT);
  return read;
}

/** Remembers what `make` gives as long as the passage lives, for one frame. */
function remembered<P extends Passage, T>(
  make: (passage: P, frame: FrameSize) => T,
): (passage: P, frame: FrameSize) => T {
  const known = new WeakMap<P, { frame: FrameSize; made: T }>();
  return (passage, frame) => {
    const found = known.get(passage);
    if (found?.frame.width === frame.width && found.frame.height === frame.height)
      return found.made;
    const made = make(passage, frame);
    known.set(passage, { frame, made });
    return made;
  };
}

/** A roll as it stands, and its whole look. */
export const laidRoll = remembered(
  (roll: Roll, frame): { readonly look: RollLook; readonly layout: RollLayout } => {
    const look = lookOfRoll(roll, frame.height);
    return { look, layout: layOutRoll(sheetOf(roll).parts, look) };
  },
);

/** What stands still beside a crawl and behind it, and the window it passes through; in pixels of the frame. */
export interface CrawlPane {
  readonly top: number;
  readonly height: number;
  /** From the frame's left edge. */
  readonly from: number;
  readonly to: number;
  /** The label's box from the left, where there is a label. */
  readonly label?: { readonly from: number; readonly to: number };
}

/** Space on either side of a label's text, as a multiple of its size. */
const LABEL_PADDING = 0.6;
/** Height of a crawl's line where it has no band, as a multiple of its size. */
const LINE = 1.4;

function paneOf(look: CrawlLook, frame: FrameSize, shaper: TextShaper): CrawlPane {
  const height = Math.round((look.band > 0 ? look.band : LINE) * look.size);
  const top = frame.height - look.up - height;
  let [from, to] = [look.insetLeft, frame.width - look.insetRight];
  if (look.label.trim() === '') return { top, height, from, to };
  const { width } = shapedLine(look.label, { ...look, bold: true }, shaper);
  const wide = Math.round(width + 2 * LABEL_PADDING * look.size);
  const label = look.labelSide === 'left' ? { from, to: from + wide } : { from: to - wide, to };
  if (look.labelSide === 'left') from += wide;
  else to -= wide;
  return { top, height, from, to, label };
}

export interface LaidCrawl {
  readonly look: CrawlLook;
  readonly items: readonly PlacedItem[];
  /** Of its items once, of what is between two, and of all that travels, in pixels. */
  readonly once: number;
  readonly between: number;
  readonly width: number;
  readonly missing: readonly string[];
  readonly pane: CrawlPane;
}

const crawls = new WeakMap<TextShaper, ReturnType<typeof rememberedCrawl>>();
const rememberedCrawl = (shaper: TextShaper) =>
  remembered((crawl: Crawl, frame): LaidCrawl => {
    const look = lookOfCrawl(crawl, frame.height);
    const laid = layOutCrawl(itemsOf(sheetOf(crawl)), look, shaper);
    const { width: once, between, items, missing } = laid;
    const width = once * look.times + between * (look.times - 1);
    const pane = paneOf(look, frame, shaper);
    return { look, items, once, between, width, missing, pane };
  });

/** A crawl as it stands, and its whole look. */
export function laidCrawl(crawl: Crawl, frame: FrameSize, shaper: TextShaper): LaidCrawl {
  const laid = crawls.get(shaper) ?? rememberedCrawl(shaper);
  crawls.set(shaper, laid);
  return laid(crawl, frame);
}

/** Forgets crawls that were measured by a shaper, after fonts have been added to it. */
export const forgetCrawls = (shaper: TextShaper): void => void crawls.delete(shaper);

/** How far a passage goes. Distances are counted from where all of it is just out of sight. */
export interface Way {
  /** Of the text in the direction of travel, in pixels. */
  readonly length: number;
  /** What it passes through: the height of the frame, or the width of the crawl's window. */
  readonly window: number;
  /** How far in it begins. */
  readonly from: number;
  /** From there to where it ends. */
  readonly distance: number;
}

export function wayOf(passage: Passage, frame: FrameSize, shaper: TextShaper): Way {
  const { journey } = passage;
  let length: number;
  let window: number;
  let [from, left] = [journey.skipStart, journey.skipEnd];
  if (passage.kind === 'roll') {
    const { layout, look } = laidRoll(passage, frame);
    [length, window] = [layout.height, frame.height];
    // What stands still at the beginning, or at the end, stands in the middle.
    const middles = [layout.blocks.at(0), layout.blocks.at(-1)].map((block) =>
      block ? Math.round(block.top + Math.min(block.height, window) / 2) : 0,
    ) as [number, number];
    const [first, last] = look.downwards
      ? ([length - middles[1], length - middles[0]] as const)
      : middles;
    if (journey.holdStart > 0) from = Math.round(window / 2) + first;
    if (journey.holdEnd > 0) left = Math.round(window / 2) + length - last;
  } else {
    const { width, pane } = laidCrawl(passage, frame, shaper);
    [length, window] = [width, Math.max(1, pane.to - pane.from)];
  }
  return { length, window, from, distance: Math.max(1, length + window - from - left) };
}

/** The travel of a passage in a number of frames, and the motion that there is time for. */
export function travelOf(
  { journey }: Pick<Passage, 'journey'>,
  { distance }: Pick<Way, 'distance'>,
  frames: number,
): Travel & { readonly motion: Motion } {
  const motion = movingFrames(frames, journey) > 0 ? journey : STEADY;
  if (journey.follows === 'speed') return { ...inFrames(distance, frames, motion), motion };
  return { distance, frames, speed: journey.speed, motion };
}

/** How many frames a cue lasts, at least one. */
export const framesOf = (
  { start, end }: Pick<Cue, 'start' | 'end'>,
  { frameRate }: Facts,
): number => Math.max(1, countFrames(subtract(end, start), frameRate));

/** The offset of a passage at a time within its cue, in pixels from where all of it is just out of sight. */
export function offsetOf(
  { facts }: Programme,
  cue: Cue,
  passage: Passage,
  time: Ticks,
  shaper: TextShaper,
): number {
  const way = wayOf(passage, facts.frame, shaper);
  const travel = travelOf(passage, way, framesOf(cue, facts));
  const frame = frameAt(time, facts.frameRate) - countFrames(cue.start, facts.frameRate);
  return way.from + offsetAt(travel, frame, travel.motion);
}
