/** What an editor wants to know of a passage that travels, worked out by the equation. */
import { fewestOut, fitOf, type Fit } from '../pace/fit.ts';
import {
  atSpeed,
  evenSpeeds,
  evenStep,
  framesInSight,
  judderOf,
  longestToRead,
  wordsPassing,
  type Travel,
} from '../pace/travel.ts';
import { lookOfCrawl, lookOfRoll, sizeOf, withSize, type Passage } from '../programme/passage.ts';
import type { Cue, Facts } from '../programme/programme.ts';
import { howManyMayGo, lastToGo, leaveOut, unitsOf } from '../text/leaveOut.ts';
import type { Line } from '../text/lines.ts';
import { unstarred } from '../text/emphasis.ts';
import { countCharacters } from '../text/graphemes.ts';
import { countWords } from '../text/words.ts';
import { itemsOf } from './crawl.ts';
import type { TextShaper } from './shaper.ts';
import { framesOf, laidRoll, sheetOf, travelOf, wayOf, type Way } from './travelling.ts';

/** A text of the passage, and the line of its sheet on which it stands, from 0. */
interface Said {
  readonly text: string;
  readonly line: number;
}

export interface TravelFigures {
  readonly way: Way;
  /** As it travels: in the time that its cue has; in what it needs where it is on the programme nowhere. */
  readonly travel: Travel;
  /** Frames that it needs at its speed. */
  readonly needed: number;
  /** How unevenly it moves, as a share of its speed: 0 where every frame moves it alike. */
  readonly judder: number;
  /** Even speeds on either side, each with the frames that it takes. */
  readonly options: readonly Travel[];
  /** How long a line, or a word, is in sight, in seconds. */
  readonly inSight: number;
  /** The text that takes longest to read, and how many seconds that is. */
  readonly longest: { readonly of: Said; readonly needs: number } | undefined;
  /** How many words pass in a minute, and characters in a second. */
  readonly wordsAMinute: number;
  readonly charactersASecond: number;
  /**
   * The fastest speed at which it can be read, in pixels a frame: at which the longest line of a roll is long enough in
   * sight, or no more characters of a crawl pass in a second than can be read.
   */
  readonly readable: number;
}

/** The texts of a passage: lines of a roll, items of a crawl. */
const saidIn = (passage: Passage, frame: Facts['frame']): readonly Said[] =>
  passage.kind === 'roll' ? laidRoll(passage, frame).layout.texts : itemsOf(sheetOf(passage));

/** The family in which a passage is set, and all that it says, for whoever has the fonts. */
export function setIn(passage: Passage, { frame }: Facts): { family: string; lines: Line[] } {
  const texts = saidIn(passage, frame).map(({ text }) => text);
  if (passage.kind === 'roll') {
    const { family } = lookOfRoll(passage, frame.height);
    // In capitals too, and as heavy as any of it may be.
    const all = texts.flatMap((text) => [text, text.toUpperCase()]);
    return { family, lines: all.map((text) => [{ text }]) };
  }
  const { family, between, label } = lookOfCrawl(passage, frame.height);
  return { family, lines: [...texts, between, label].map((text) => [{ text }]) };
}

/** How many characters and words there are. */
interface Counts {
  readonly characters: number;
  readonly words: number;
}

/** Of texts: in a long passage that is edited, few are new each time. */
const ofTexts = new Map<string, Counts>();
/** Texts of the longest passages there are, and as many again. */
const MOST_TEXTS = 20_000;
const ofPassages = new WeakMap<Passage, Counts>();

function countsOf(text: string): Counts {
  let counts = ofTexts.get(text);
  if (!counts) {
    if (ofTexts.size >= MOST_TEXTS) ofTexts.clear();
    const read = unstarred(text);
    counts = { characters: countCharacters(read), words: countWords(read) };
    ofTexts.set(text, counts);
  }
  return counts;
}

function countsIn(passage: Passage, frame: Facts['frame']): Counts {
  let counts = ofPassages.get(passage);
  if (!counts) {
    let [characters, words] = [0, 0];
    for (const { text } of saidIn(passage, frame)) {
      const own = countsOf(text);
      characters += own.characters;
      words += own.words;
    }
    counts = { characters, words };
    ofPassages.set(passage, counts);
  }
  return counts;
}

/** How many words a passage has. */
export const wordsIn = (passage: Passage, frame: Facts['frame']): number =>
  countsIn(passage, frame).words;

/**
 * The figures of a passage as its cue has it.
 *
 * @param cue  that puts it on the programme; undefined where none does
 */
export function figuresOf(
  facts: Facts,
  passage: Passage,
  cue: Pick<Cue, 'start' | 'end'> | undefined,
  shaper: TextShaper,
): TravelFigures {
  const { frame, frameRate, profile } = facts;
  const { journey } = passage;
  const way = wayOf(passage, frame, shaper);
  const frames = cue ? framesOf(cue, facts) : atSpeed(way.distance, journey.speed, journey).frames;
  const travel = travelOf(passage, way, frames);
  const step = evenStep(frameRate);
  const seconds = frameRate.den / frameRate.num;
  const { speed, distance, motion } = travel;
  const longest = longestToRead(
    saidIn(passage, frame),
    profile.charactersASecond,
    (text) => countsOf(text).characters,
  );
  // Characters that pass a point in a second of travel.
  const passing =
    (countsIn(passage, frame).characters / Math.max(1, way.length)) * (speed / seconds);
  const readable =
    passage.kind === 'crawl'
      ? passing > 0
        ? (speed * profile.charactersASecond) / passing
        : Infinity
      : longest
        ? (way.window * seconds) / longest.needs
        : Infinity;
  return {
    way,
    travel,
    needed: atSpeed(distance, speed, motion).frames,
    judder: judderOf(speed, step),
    options: evenSpeeds(distance, speed, step, { motion }),
    inSight: framesInSight(way.window, speed) * seconds,
    longest: longest && {
      ...longest,
      of: { text: unstarred(longest.of.text), line: longest.of.line },
    },
    charactersASecond: passing,
    readable,
    wordsAMinute: wordsPassing(wordsIn(passage, frame), way.length, speed, 1 / seconds),
  };
}

/** What would make a passage fit a number of frames at a speed; undefined where it fits. */
export const fitWithin = (
  facts: Facts,
  passage: Passage,
  { frames, speed }: { readonly frames: number; readonly speed: number },
  shaper: TextShaper,
): Fit | undefined => {
  const { length, distance } = wayOf(passage, facts.frame, shaper);
  return fitOf({
    length,
    window: distance - length,
    frames,
    speed,
    size: sizeOf(passage, facts),
    lengthAt: (size) => wayOf(withSize(passage, size), facts.frame, shaper).length,
    motion: passage.journey,
  });
};

/**
 * What to leave out so that a passage is no longer than it may be: the sheet without it, and the lines that go, from 0.
 * Undefined where what must stay is too long by itself.
 *
 * @param most  how long it may be in the direction of travel, in pixels
 */
export function leftOutToFit(
  passage: Passage,
  most: number,
  frame: Facts['frame'],
  shaper: TextShaper,
): { readonly sheet: string; readonly lines: readonly number[] } | undefined {
  const { separator } = passage;
  const read = sheetOf(passage);
  const units = unitsOf(read, passage.kind === 'crawl');
  const linesWithout = (count: number) =>
    lastToGo(units, count).flatMap((at) => units[at]?.lines ?? []);
  const without = (count: number): Passage => ({
    ...passage,
    sheet: leaveOut(passage.sheet, linesWithout(count)),
    // What parts roles from names is guessed from all of it.
    separator: separator ?? read.separator?.separator ?? null,
  });
  const count = fewestOut(
    howManyMayGo(units),
    (some) => wayOf(without(some), frame, shaper).length,
    most,
  );
  if (count === undefined) return undefined;
  return { sheet: without(count).sheet, lines: linesWithout(count) };
}
