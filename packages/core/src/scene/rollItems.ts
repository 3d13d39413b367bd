/** The drawing of a roll at an offset. */
import type { Roll, RollLook } from '../programme/passage.ts';
import type { Facts, Material, Table } from '../programme/programme.ts';
import { unstarred } from '../text/emphasis.ts';
import type { DrawingItem, PaintedText, PlacedLine } from './drawing.ts';
import type { Half, RollLayout, RollText } from './roll.ts';
import { shapedLine } from './shapedLines.ts';
import type { TextShaper } from './shaper.ts';
import { laidRoll } from './travelling.ts';

type FrameSize = Facts['frame'];

/** A text where it stands from side to side, its baseline counted from the top of its line. */
interface PlacedText {
  readonly line: PlacedLine;
  readonly painted: Omit<PaintedText, 'lines'>;
  readonly text: string;
}

const placed = new WeakMap<TextShaper, WeakMap<RollText, PlacedText>>();
const crowded = new WeakMap<TextShaper, WeakMap<RollLayout, Crowded>>();

/** Forgets where text stood that was shaped by a shaper, after fonts have been added to it. */
export function forgetPlaces(shaper: TextShaper): void {
  placed.delete(shaper);
  crowded.delete(shaper);
}

/** How much of the frame's width a picture, and three columns or more, may take: what is safe to be seen on any screen. */
const COLUMNS = 0.9;

/** The middle of what a text keeps to, in pixels from the left of a frame of a width. */
const middleOf = (
  half: Half | null,
  { gutterAt }: Pick<RollLook, 'gutterAt'>,
  frame: number,
): number => (half === null ? gutterAt * frame : half === 'left' ? frame / 4 : (3 * frame) / 4);

/** Where text of a width begins on a frame of a width, in pixels from its left. */
export function acrossOf(
  { side, half = null }: Pick<RollText, 'side'> & Partial<Pick<RollText, 'half'>>,
  width: number,
  look: Pick<RollLook, 'size' | 'gutter' | 'gutterAt' | 'sideWidth' | 'roleAlign' | 'nameAlign'>,
  frame: number,
): number {
  const middle = middleOf(half, look, frame);
  if (side === 'middle') return middle - width / 2;
  const [gutter, wide] = [
    look.gutter * look.size,
    look.sideWidth * frame * (half === null ? 1 : 0.5),
  ];
  const within = (from: number, align: RollLook['roleAlign']): number =>
    from + { left: 0, centre: (wide - width) / 2, right: wide - width }[align];
  const [left, right] = [middle - gutter / 2 - wide, middle + gutter / 2];
  if (side === 'left') return left;
  if (side === 'right') return right + wide - width;
  if (side === 'role') return within(left, look.roleAlign);
  if (side === 'name') return within(right, look.nameAlign);
  // Two columns keep to the gutter as roles and names do; more of them share out the width.
  if (side.of === 2) return side.column === 0 ? middle - gutter / 2 - width : right;
  const span = COLUMNS * frame * (half === null ? 1 : 0.5);
  const each = span / side.of;
  return middle - span / 2 + each * (side.column + 0.5) - width / 2;
}

/** How a text of a roll is set. */
const mannerOf = ({ kind }: RollText, look: RollLook) => {
  switch (kind) {
    case 'title':
    case 'heading':
      return { bold: look.boldHeadings, colour: look.headingColour, capital: look.capitalHeadings };
    case 'role':
      return { bold: look.boldRoles, colour: look.roleColour, capital: look.capitalRoles };
    case 'name':
      return { bold: look.boldNames, colour: look.colour, capital: look.capitalNames };
    case 'text':
      return { bold: look.boldNames, colour: look.colour, capital: false };
  }
};

function placedText(
  of: RollText,
  look: RollLook,
  frame: FrameSize,
  shaper: TextShaper,
): PlacedText {
  const texts = placed.get(shaper) ?? new WeakMap<RollText, PlacedText>();
  placed.set(shaper, texts);
  const found = texts.get(of);
  if (found) return found;
  const { bold, colour, capital } = mannerOf(of, look);
  const text = capital ? of.text.toUpperCase() : of.text;
  const { family } = look;
  const shaped = shapedLine(text, { family, size: of.size, bold }, shaper);
  const { ascent, descent } = shaper.metrics(family);
  // Texts beside each other share the baseline of the largest.
  const largest = of.height / look.lineSpacing;
  const baseline = Math.round((of.height - (ascent + descent) * largest) / 2 + ascent * largest);
  const x = Math.round(acrossOf(of, shaped.width, look, frame.width));
  const line = { x, baseline, width: shaped.width, runs: shaped.runs };
  const made: PlacedText = {
    text: unstarred(text),
    line,
    painted: {
      style: { family, size: of.size, colour, outlineColour: '#000000', outlineWidth: 0 },
      outOfFrame: overEdge(line, frame),
      missing: shaped.missing,
    },
  };
  texts.set(of, made);
  return made;
}

/** Texts of a roll that have no room. */
export interface Crowded {
  /** How far the farthest runs out of the frame, in pixels; 0 where none does. */
  readonly out: number;
  /** It; and those that run into the one beside them. */
  readonly farthest: RollText | undefined;
  readonly into: readonly RollText[];
  /** Characters that no family has. */
  readonly missing: readonly string[];
}

interface Beside {
  readonly text: RollText;
  readonly from: number;
  readonly to: number;
}

/** Which texts of a roll run out of the frame, or into each other. All of it is shaped for that, once. */
export function crowdedIn(roll: Roll, frame: FrameSize, shaper: TextShaper): Crowded {
  const { look, layout } = laidRoll(roll, frame);
  const known = crowded.get(shaper) ?? new WeakMap<RollLayout, Crowded>();
  crowded.set(shaper, known);
  const found = known.get(layout);
  if (found) return found;
  const sway = Math.round(look.sway * frame.width);
  let [out, farthest] = [0, undefined as RollText | undefined];
  const into: RollText[] = [];
  const missing = new Set<string>();
  let row: Beside[] = [];
  const settle = (): void => {
    row.sort((a, b) => a.from - b.from);
    for (let at = 1; at < row.length; at++)
      if ((row[at - 1]?.to ?? 0) > (row[at]?.from ?? 0)) into.push((row[at - 1] as Beside).text);
    row = [];
  };
  for (const text of layout.texts) {
    if (text.text === '') continue;
    if (row[0] && row[0].text.top !== text.top) settle();
    const { line, painted } = placedText(text, look, frame, shaper);
    for (const character of painted.missing) missing.add(character);
    const over = overEdge(line, frame, sway);
    if (over > out) [out, farthest] = [over, text];
    row.push({ text, from: line.x, to: line.x + line.width });
  }
  settle();
  const made = { out, farthest, into, missing: [...missing] };
  known.set(layout, made);
  return made;
}

/** How far a line runs out of the frame to either side when it sways, in whole pixels. */
const overEdge = ({ x, width }: PlacedLine, frame: FrameSize, sway = 0): number =>
  Math.max(0, Math.round(Math.max(-x, x + width - frame.width) + sway));

/** The first of some texts, ordered by their tops, whose top is at or after `top`. */
function firstFrom(texts: readonly RollText[], top: number): number {
  let [low, high] = [0, texts.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((texts[middle] as RollText).top < top) low = middle + 1;
    else high = middle;
  }
  return low;
}

const tallest = new WeakMap<RollLayout, number>();
function tallestOf(layout: RollLayout): number {
  let found = tallest.get(layout);
  if (found === undefined) {
    found = layout.texts.reduce((most, { height }) => Math.max(most, height), 0);
    tallest.set(layout, found);
  }
  return found;
}

/** Thickness of a rule, as a share of the size of the text, and how wide it is, as a share of the frame's width. */
const [RULE, RULE_WIDTH] = [0.06, 0.3];

export interface RollInSight {
  readonly roll: Roll;
  readonly cue: string;
  readonly frame: FrameSize;
  readonly materials: Table<Material>;
  /** How far the top of the roll is below the top of the frame, in pixels. */
  readonly top: number;
  /** What is wanted, in pixels from the top of the frame. */
  readonly from: number;
  readonly to: number;
}

/** The top of a roll on the frame at an offset, in pixels. */
export const topOfRoll = (
  { look, layout }: ReturnType<typeof laidRoll>,
  offset: number,
  frame: FrameSize,
): number => (look.downwards ? offset - layout.height : frame.height - offset);

/** What of a roll stands between two heights of the frame; text that only touches them is there. */
export function rollItems(
  { roll, cue, frame, materials, top, from, to }: RollInSight,
  shaper: TextShaper,
): DrawingItem[] {
  const { look, layout } = laidRoll(roll, frame);
  const items: DrawingItem[] = [];
  const reach = Math.round(look.softEdge * frame.height);
  const whole = { x: 0, y: 0, w: frame.width, h: frame.height };
  const { texts } = layout;
  for (let at = firstFrom(texts, from - top - tallestOf(layout)); at < texts.length; at++) {
    const each = texts[at] as RollText;
    const y = top + each.top;
    if (y >= to) break;
    if (y + each.height <= from || each.text === '') continue;
    const { text, line, painted } = placedText(each, look, frame, shaper);
    items.push({
      kind: 'text',
      text,
      cue,
      box: { x: line.x, y, w: line.width, h: each.height },
      opacity: 1,
      layout: { ...painted, lines: [{ ...line, baseline: y + line.baseline }] },
      ...(reach > 0 && { window: { box: whole, along: 'down' as const, reach } }),
    });
  }
  for (const thing of layout.things) {
    const y = top + thing.top;
    if (y >= to || y + thing.height <= from) continue;
    if (thing.kind === 'rule') {
      const [w, h] = [
        Math.round(RULE_WIDTH * frame.width),
        Math.max(1, Math.round(RULE * look.size)),
      ];
      const x = Math.round(acrossOf(thing, w, look, frame.width));
      const box = { x, y: y + Math.round((thing.height - h) / 2), w, h };
      items.push({ kind: 'plate', colour: look.roleColour, box, opacity: 1 });
      continue;
    }
    const material = Object.values(materials).find(({ name }) => name === thing.name);
    if (!material?.picture) continue;
    const { width, height } = material.picture;
    const widest = COLUMNS * frame.width * (thing.half === null ? 1 : 0.5);
    const share = Math.min(thing.height / height, widest / width);
    const [w, h] = [Math.round(width * share), Math.round(height * share)];
    const x = Math.round(acrossOf(thing, w, look, frame.width));
    const box = { x, y: y + Math.round((thing.height - h) / 2), w, h };
    items.push({ kind: 'image', material: material.id, box, opacity: 1 });
  }
  return items;
}
