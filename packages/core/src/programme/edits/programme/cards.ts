/** Cards of a list: names or lines, so many at once, each as long as it takes to read them. */
import { breakLines, type Limits } from '../../../text/breakLines.ts';
import { countCharacters } from '../../../text/graphemes.ts';
import { languageOfText, type TextLanguage } from '../../../text/language/languageOfText.ts';
import { unstarred } from '../../../text/emphasis.ts';
import type { Line } from '../../../text/lines.ts';
import { inColumns, readSheet } from '../../../text/sheet/sheet.ts';
import { frameAfter, frames, nearestFrame } from '../../../time/frameRate.ts';
import type { Range } from '../../../time/range.ts';
import { add, fromSeconds, later, type Ticks } from '../../../time/ticks.ts';
import { create, type Change, type Edit } from '../../record/change.ts';
import { newStrand } from '../../defaults.ts';
import { rollLook } from '../../passage.ts';
import type { Cue, Facts, Id, Programme, TextStyle } from '../../programme.ts';
import { strandWithRoom } from './strands.ts';

/** How long cards stay: as long as each needs, even shares of a time, or from one instant to the next. */
export type Stays =
  | { readonly by: 'reading' }
  | { readonly by: 'shares'; readonly frames: number }
  | { readonly by: 'instants'; readonly instants: readonly Ticks[] };

export interface CardPlan {
  /** What is on them, written as a sheet is: an entry a line, roles and names with a separator. */
  readonly lines: readonly string[];
  /** How wide lines may be in the usual size; what is wider is broken by sense. Not asked for, every line stays whole. */
  readonly room?: Pick<Limits, 'longestLine' | 'measure'> | undefined;
  /** Lines on a card at the most; all cards have as many as they can alike. */
  readonly most: number;
  /** When the first one comes. */
  readonly from: Ticks;
  readonly stays: Stays;
  /** Whether the opening card is larger and the closing one smaller than those between. */
  readonly framed?: boolean;
  /** Frames in which each comes and goes; 0 cuts. */
  readonly fade: number;
  /** What fills the frame behind them, a colour or a still picture over it; where both are missing, the picture stays. */
  readonly behind?: string | null;
  readonly behindImage?: Id | null;
}

/** A card, and when it is seen. */
export interface Card extends Range {
  readonly lines: readonly CardLine[];
}

/** A line of a card; its first letters are a role, as many as `role` says. */
export interface CardLine {
  readonly text: string;
  readonly role: number;
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
  }: { readonly at: number; readonly of: number; readonly lines: readonly CardLine[] },
  { size, lineSpacing, margin }: TextStyle,
  { frame }: Facts,
  room: CardPlan['room'],
): number {
  if (of < 2 || (at > 0 && at < of - 1)) return size;
  if (at > 0) return Math.round(size * CLOSING);
  const high = (frame.height - 2 * margin) / (lines.length * lineSpacing);
  const { longestLine = Infinity, measure = () => 1 } = room ?? {};
  const wide = (size * longestLine) / Math.max(1, ...lines.map(({ text }) => measure(text)));
  return Math.max(size, Math.min(Math.round(size * OPENING), Math.floor(Math.min(high, wide))));
}

/** A line, in as many as it takes to fit. */
function brokenTo(
  { text, role }: CardLine,
  room: CardPlan['room'],
  language: TextLanguage | undefined,
): CardLine[] {
  const broken = room && breakLines(text, { ...room, language, lines: MOST_BROKEN });
  if (!broken) return [{ text, role }];
  return broken.map(({ from, to }) => {
    const line = text.slice(from, to).trim();
    return { text: line, role: Math.min(line.length, Math.max(0, role - from)) };
  });
}

/** Between a role and its name on a card: as wide as the size of the text. */
const GUTTER = '\u2003';

/** What a list says, an entry each, with all of its lines: a row has its role before its first name. */
function entriesOf(lines: readonly string[]): CardLine[][] {
  const plain = (text: string): CardLine[] => [{ text, role: 0 }];
  return readSheet(lines.join('\n')).parts.flatMap((part): CardLine[][] => {
    switch (part.kind) {
      case 'row': {
        const [first = '', ...more] = part.names.map(({ text }) => unstarred(text));
        const role = unstarred(part.role);
        const text = [role, first].filter((each) => each !== '').join(GUTTER);
        return [[{ text, role: role.length }, ...more.flatMap(plain)]];
      }
      case 'columns':
        return part.names.map(({ text }) => plain(unstarred(text)));
      case 'title':
      case 'heading':
      case 'text':
        return [plain(unstarred(part.text))];
      default:
        return [];
    }
  });
}
/** No line is broken in more than this; what would still not fit stays whole, and is found. */
const MOST_BROKEN = 8;

/** What stands on each card: all alike, or, where lines were broken, no card with a part of one. */
function grouped(written: readonly (readonly CardLine[])[], most: number): CardLine[][] {
  if (written.every(({ length }) => length === 1))
    return inColumns(written.flat(), Math.ceil(written.length / most), true);
  const cards: CardLine[][] = [];
  for (const rows of written) {
    const last = cards.at(-1);
    if (last && last.length + rows.length <= most) last.push(...rows);
    else cards.push([...rows]);
  }
  return cards;
}

const said = (lines: readonly CardLine[]): string => lines.map(({ text }) => text).join('\n');

/** The cards that a list makes, in order. */
export function cardsOf(
  { facts }: Programme,
  { lines, room, most, from, stays }: CardPlan,
): Card[] {
  const { frameRate, profile } = facts;
  const entries = entriesOf(lines);
  if (entries.length === 0) return [];
  const language = languageOfText(said(entries.flat()));
  const groups = grouped(
    entries.map((entry) => entry.flatMap((line) => brokenTo(line, room, language))),
    Math.max(1, most),
  );
  const reading = (group: readonly CardLine[]): Ticks => {
    const characters = countCharacters(said(group));
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

/** A line of text whose first letters, as many as a role has, are in the colour of roles. */
const spansOf = (text: string, role: number, colour: string): Line =>
  [{ text: text.slice(0, role), colour }, { text: text.slice(role) }].filter(
    (span) => span.text !== '',
  );

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
  // Roles are told from names as in a roll.
  const { roleColour } = rollLook(programme.facts.frame.height);
  const made = cards.map(({ lines, start, end }, at): Change => {
    const size = plan.framed
      ? sizeOf({ at, of: cards.length, lines }, style, programme.facts, plan.room)
      : style.size;
    const cue: Cue = {
      id: newId(),
      strand,
      start,
      end,
      text: lines.map(({ text, role }) => spansOf(text, role, roleColour)),
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
