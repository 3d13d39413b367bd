/** Cards of a list: names or lines, so many at once, each as long as it takes to read them. */
import { breakLines, type Limits } from '../../../text/breakLines.ts';
import { countCharacters } from '../../../text/graphemes.ts';
import { languageOfText, type TextLanguage } from '../../../text/language/languageOfText.ts';
import { linesOf } from '../../../text/lines.ts';
import { inColumns } from '../../../text/sheet/sheet.ts';
import { frameAfter, frames, nearestFrame } from '../../../time/frameRate.ts';
import type { Range } from '../../../time/range.ts';
import { add, fromSeconds, later, type Ticks } from '../../../time/ticks.ts';
import { create, type Change, type Edit } from '../../record/change.ts';
import { newStrand } from '../../defaults.ts';
import type { Cue, Facts, Id, Programme, TextStyle } from '../../programme.ts';
import { strandWithRoom } from './strands.ts';

/** How long cards stay: as long as each needs, even shares of a time, or from one instant to the next. */
export type Stays =
  | { readonly by: 'reading' }
  | { readonly by: 'shares'; readonly frames: number }
  | { readonly by: 'instants'; readonly instants: readonly Ticks[] };

export interface CardPlan {
  /** What is on them, a line each. */
  readonly lines: readonly string[];
  /** How wide lines may be in the usual size; what is wider is broken by sense. Not asked for, every line stays whole. */
  readonly room?: Pick<Limits, 'longestLine' | 'measure'> | undefined;
  /** Lines on a card at the most; all cards have as many as they can alike. */
  readonly most: number;
  /** When the first one comes. */
  readonly from: Ticks;
  readonly stays: Stays;
  /** Frames in which each comes and goes; 0 cuts. */
  readonly fade: number;
  /** What fills the frame behind them, a colour or a still picture over it; where both are missing, the picture stays. */
  readonly behind?: string | null;
  readonly behindImage?: Id | null;
}

/** A card, and when it is seen. */
export interface Card extends Range {
  readonly lines: readonly string[];
}

/** How many lines of cards fit the frame between its margins. */
export function linesThatFit({ frame }: Facts, { size, lineSpacing, margin }: TextStyle): number {
  return Math.max(1, Math.floor((frame.height - 2 * margin) / (size * lineSpacing)));
}

/**
 * The opening card is larger and the closing one smaller than those between: one family, three sizes. The opening one is
 * no larger than all of its lines fit.
 */
const [OPENING, CLOSING] = [1.25, 0.85];

/** The size of the card at a place in a row of cards. */
function sizeOf(
  {
    at,
    of,
    lines,
  }: { readonly at: number; readonly of: number; readonly lines: readonly string[] },
  { size, lineSpacing, margin }: TextStyle,
  { frame }: Facts,
  room: CardPlan['room'],
): number {
  if (of < 2 || (at > 0 && at < of - 1)) return size;
  if (at > 0) return Math.round(size * CLOSING);
  const high = (frame.height - 2 * margin) / (lines.length * lineSpacing);
  const { longestLine = Infinity, measure = () => 1 } = room ?? {};
  const wide = (size * longestLine) / Math.max(1, ...lines.map(measure));
  return Math.max(size, Math.min(Math.round(size * OPENING), Math.floor(Math.min(high, wide))));
}

/** A line, in as many as it takes to fit. */
function brokenTo(
  line: string,
  room: CardPlan['room'],
  language: TextLanguage | undefined,
): string[] {
  const broken = room && breakLines(line, { ...room, language, lines: MOST_BROKEN });
  return broken ? broken.map(({ from, to }) => line.slice(from, to).trim()) : [line];
}
/** No line is broken in more than this; what would still not fit stays whole, and is found. */
const MOST_BROKEN = 8;

/** What stands on each card: all alike, or, where lines were broken, no card with a part of one. */
function grouped(written: readonly (readonly string[])[], most: number): string[][] {
  if (written.every(({ length }) => length === 1))
    return inColumns(written.flat(), Math.ceil(written.length / most), true);
  const cards: string[][] = [];
  for (const rows of written) {
    const last = cards.at(-1);
    if (last && last.length + rows.length <= most) last.push(...rows);
    else cards.push([...rows]);
  }
  return cards;
}

/** The cards that a list makes, in order. */
export function cardsOf(
  { facts }: Programme,
  { lines, room, most, from, stays }: CardPlan,
): Card[] {
  const { frameRate, profile } = facts;
  const written = lines.map((line) => line.trim()).filter((line) => line !== '');
  if (written.length === 0) return [];
  const language = languageOfText(written.join('\n'));
  const groups = grouped(
    written.map((line) => brokenTo(line, room, language)),
    Math.max(1, most),
  );
  const reading = (group: readonly string[]): Ticks => {
    const characters = countCharacters(group.join('\n'));
    const needs = fromSeconds(characters / profile.charactersASecond);
    return frameAfter(later(needs, profile.shortestStay), frameRate);
  };
  let start = nearestFrame(from, frameRate);
  const instants =
    stays.by === 'instants'
      ? stays.instants.map((at) => nearestFrame(at, frameRate)).filter((at) => at > start)
      : [];
  return groups.map((group, at): Card => {
    let end = add(start, reading(group));
    if (stays.by === 'shares') {
      const share = Math.round(((at + 1) * stays.frames) / groups.length);
      end = later(
        add(nearestFrame(from, frameRate), frames(share, frameRate)),
        add(start, frames(1, frameRate)),
      );
    } else if (stays.by === 'instants') end = instants[at] ?? end;
    const card = { lines: group, start, end };
    start = end;
    return card;
  });
}

/** Puts the cards of a list on a strand of cards where there is room for them, or on a new one. */
export function makeCards(programme: Programme, plan: CardPlan, newId: () => Id): Edit {
  const name = 'Make cards from a list';
  const cards = cardsOf(programme, plan);
  const [first, last] = [cards[0], cards.at(-1)];
  if (!first || !last) return { name, changes: [], note: 'The list is empty.' };
  const { changes, strand } = strandWithRoom(
    programme,
    'card',
    { start: first.start, end: last.end },
    newId,
  );
  const style =
    programme.strands[strand]?.style ??
    newStrand('card', strand, programme.facts.frame.height).style;
  const made = cards.map(({ lines, start, end }, at): Change => {
    const size = sizeOf({ at, of: cards.length, lines }, style, programme.facts, plan.room);
    const cue: Cue = {
      id: newId(),
      strand,
      start,
      end,
      text: linesOf(lines.join('\n')),
      style: {
        ...(size !== style.size && { size }),
        ...(plan.fade > 0 && { fade: plan.fade }),
        ...(plan.behind && { behind: plan.behind }),
        ...(plan.behindImage && { behindImage: plan.behindImage }),
      },
      words: [],
    };
    return create('cue', cue);
  });
  return { name, changes: [...changes, ...made] };
}
