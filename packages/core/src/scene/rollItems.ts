/** What is drawn of a roll that has come so far. */
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

/** Forgets where text stood that was shaped by a shaper, after fonts have been added to it. */
export const forgetPlaces = (shaper: TextShaper): void => void placed.delete(shaper);

/** How much of the frame's width three columns or more share out: what is safe to be seen on any screen. */
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
  if (side === 'role') return within(middle - gutter / 2 - wide, look.roleAlign);
  if (side === 'name') return within(middle + gutter / 2, look.nameAlign);
  // Two columns keep to the gutter as roles and names do; more of them share out the width.
  if (side.of === 2) return side.column === 0 ? middle - gutter / 2 - width : middle + gutter / 2;
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
    default:
      return { bold: look.boldNames, colour: look.colour, capital: false };
  }
};

function placeOf(of: RollText, look: RollLook, frame: FrameSize, shaper: TextShaper): PlacedText {
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
  const out = Math.max(0, Math.round(Math.max(-x, x + shaped.width - frame.width)));
  const made: PlacedText = {
    text: unstarred(text),
    line: { x, baseline, width: shaped.width, runs: shaped.runs },
    painted: {
      style: { family, size: of.size, colour, outlineColour: '#000000', outlineWidth: 0 },
      outOfFrame: out,
      missing: shaped.missing,
    },
  };
  texts.set(of, made);
  return made;
}

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

/** The top of a roll on the frame after it has come so far, in pixels. */
export const topOfRoll = (
  { look, layout }: ReturnType<typeof laidRoll>,
  come: number,
  frame: FrameSize,
): number => (look.downwards ? come - layout.height : frame.height - come);

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
    const { text, line, painted } = placeOf(each, look, frame, shaper);
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
      const x = Math.round(middleOf(thing.half, look, frame.width) - w / 2);
      const box = { x, y: y + Math.round((thing.height - h) / 2), w, h };
      items.push({ kind: 'plate', colour: look.roleColour, box, opacity: 1 });
      continue;
    }
    const material = Object.values(materials).find(({ name }) => name === thing.name);
    if (!material?.picture) continue;
    const share = thing.height / material.picture.height;
    const w = Math.round(Math.min(material.picture.width * share, frame.width));
    const x = Math.round(middleOf(thing.half, look, frame.width) - w / 2);
    const box = { x, y, w, h: thing.height };
    items.push({ kind: 'image', material: material.id, box, opacity: 1 });
  }
  return items;
}
