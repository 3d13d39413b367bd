/** The cues of a group as they stand together. */
import { eased } from '../movement/easing.ts';
import { styleOf } from '../programme/patterns.ts';
import type { Cue, Id, Programme, TextStyle } from '../programme/programme.ts';
import { isBlank, isRightToLeft, plainText, slice, type Line, type Span } from '../text/lines.ts';
import { countFrames, frameAt } from '../time/frameRate.ts';
import type { Ticks } from '../time/ticks.ts';
import type { Box, PlacedLine } from './drawing.ts';
import {
  boxFor,
  layOut,
  lineHeight,
  outBy,
  shapeAsSet,
  shifted,
  SHARES,
  type SetLine,
  type TextLayout,
} from './layout.ts';
import type { TextShaper } from './shaper.ts';

/** In how many frames a cue pushes the ones before it away. */
const PUSHES = 8;

const groups = new WeakMap<readonly Cue[], Map<Id, Cue[]>>();

/** The cues of a group that have text, by start. @param row  the cues of the strand, by start */
export function membersOf(row: readonly Cue[], group: Id): readonly Cue[] {
  let known = groups.get(row);
  if (!known) {
    known = new Map();
    for (const cue of row) {
      if (!cue.group || isBlank(cue.text)) continue;
      const members = known.get(cue.group.id);
      if (members) members.push(cue);
      else known.set(cue.group.id, [cue]);
    }
    groups.set(row, known);
  }
  return known.get(group) ?? [];
}

/** How far the next cue is below one: its height, and what is between lines. */
const stepOf = ({ box, style }: TextLayout, shaper: TextShaper): number =>
  box.h + style.size * style.lineSpacing - lineHeight(style, shaper);

/**
 * The layout of a cue among those of its group.
 *
 * @param text  as it is seen, where it is another than the cue's own
 */
export function layOutInGroup(
  programme: Programme,
  row: readonly Cue[],
  cue: Cue,
  shaper: TextShaper,
  text: readonly Line[] = cue.text,
): TextLayout {
  const { frame } = programme.facts;
  const { id, standing } = cue.group ?? { id: '', standing: 'below' };
  const members = membersOf(row, id);
  const [first = cue] = members;
  const style = styleOf(programme, first);
  if (standing === 'paragraph') return inParagraph(members, cue, text, style, frame, shaper);
  const own = (of: Cue, as: readonly Line[]) => {
    const { across, down, margin, placed = null } = style;
    return layOut(as, { ...styleOf(programme, of), across, down, margin, placed }, frame, shaper);
  };
  const layout = own(cue, text);
  if (standing === 'pushed') return layout;
  const all = members.map((each) => own(each, each.text));
  const at = Math.max(0, members.indexOf(cue));
  const to = standing === 'below' ? below(all, at) : along(all, at);
  return shifted(layout, { x: to.x - layout.box.x, y: to.y - layout.box.y }, frame);

  /** Where the corner of one stands that is below those before it. */
  function below(layouts: readonly TextLayout[], place: number) {
    const steps = layouts.map((each) => stepOf(each, shaper));
    const tops = steps.map((_, to) => steps.slice(0, to).reduce((sum, step) => sum + step, 0));
    const last = layouts.at(-1)?.box.h ?? 0;
    const w = Math.max(...layouts.map(({ box }) => box.w));
    const whole = boxFor(style, { w, h: (tops.at(-1) ?? 0) + last }, frame);
    const x = whole.x + (w - (layouts[place]?.box.w ?? 0)) * SHARES[style.across];
    return { x: Math.round(x), y: Math.round(whole.y + (tops[place] ?? 0)) };
  }

  /** Where the corner of one stands that is beside the others, in the direction in which they are read. */
  function along(layouts: readonly TextLayout[], place: number) {
    const space = shapeAsSet([{ text: ' ' }], style, shaper).width;
    const order = isRightToLeft(plainText(first.text)) ? [...layouts].reverse() : layouts;
    const turn = order === layouts ? place : layouts.length - 1 - place;
    const before = order.slice(0, turn).reduce((sum, { box }) => sum + box.w + space, 0);
    const w = layouts.reduce((sum, { box }) => sum + box.w + space, -space);
    const rise = (each: TextLayout) => (each.lines[0]?.baseline ?? 0) - each.box.y;
    const highest = Math.max(...layouts.map(rise));
    const h = Math.max(...layouts.map((each) => highest - rise(each) + each.box.h));
    const whole = boxFor(style, { w, h }, frame);
    const mine = layouts[place];
    return {
      x: Math.round(whole.x + before),
      y: Math.round(whole.y + highest - (mine ? rise(mine) : 0)),
    };
  }
}

/** The lines of a text as one, with a space in the place of each line end. */
const asOne = (text: readonly Line[]): Line =>
  text.flatMap((line, at): Span[] => [...(at > 0 ? [{ text: ' ' }] : []), ...line]);

/** A cue in a paragraph that its group is set as, broken at the width of the style, or at the margins. */
function inParagraph(
  members: readonly Cue[],
  cue: Cue,
  text: readonly Line[],
  style: TextStyle,
  frame: Programme['facts']['frame'],
  shaper: TextShaper,
): TextLayout {
  const all = members.map((each) => asOne(each === cue ? text : each.text));
  const starts: number[] = [];
  let end = 0;
  for (const line of all) {
    starts.push(end);
    end += plainText([line]).length + 1;
  }
  const breakAt = style.breakAt ?? Math.max(0.1, (frame.width - 2 * style.margin) / frame.width);
  const whole = layOut([asOne(all)], { ...style, breakAt }, frame, shaper);
  const begins = starts[Math.max(0, members.indexOf(cue))] ?? 0;
  const ends = begins + plainText([asOne(text)]).length;
  const fromRight = isRightToLeft(plainText([asOne(all)]));
  const set: SetLine[] = [];
  const lines: PlacedLine[] = [];
  const width = (line: Line) => shapeAsSet(line, whole.style, shaper).width;
  whole.set.forEach(({ line, from }, at) => {
    const placed = whole.lines[at];
    const length = plainText([line]).length;
    const [a, b] = [Math.max(begins, from) - from, Math.min(ends, from + length) - from];
    if (!placed || a >= b) return;
    const [part = [], before = []] = [slice([line], a, b)[0], slice([line], 0, a)[0]];
    const shaped = shapeAsSet(part, whole.style, shaper);
    const left = a > 0 ? width(before) : 0;
    const x = fromRight ? placed.x + placed.width - left - shaped.width : placed.x + left;
    set.push({ line: part, from: from + a - begins });
    lines.push({ x, baseline: placed.baseline, width: shaped.width, runs: shaped.runs });
  });
  const box = around(lines, whole, shaper);
  return { ...whole, box, set, lines, outOfFrame: outBy(box, whole.style, frame) };
}

function around(lines: readonly PlacedLine[], { style, box }: TextLayout, shaper: TextShaper): Box {
  if (lines.length === 0) return { ...box, w: 0, h: 0 };
  const { ascent, descent } = shaper.metrics(style.family);
  const x = Math.min(...lines.map((line) => line.x));
  const y = Math.min(...lines.map(({ baseline }) => baseline)) - ascent * style.size;
  return {
    ...{ x, y },
    w: Math.max(...lines.map((line) => line.x + line.width)) - x,
    h: Math.max(...lines.map(({ baseline }) => baseline)) + descent * style.size - y,
  };
}

/** How far down a cue is pushed by those that came after it at an instant, in pixels; less than nothing is up. */
export function pushedBy(
  programme: Programme,
  row: readonly Cue[],
  cue: Cue,
  time: Ticks,
  shaper: TextShaper,
): number {
  if (cue.group?.standing !== 'pushed') return 0;
  const { frameRate } = programme.facts;
  const members = membersOf(row, cue.group.id);
  const up = members.slice(members.indexOf(cue) + 1).reduce((sum, next) => {
    const since = frameAt(time, frameRate) - countFrames(next.start, frameRate);
    if (since < 0) return sum;
    const layout = layOutInGroup(programme, row, next, shaper);
    return sum + stepOf(layout, shaper) * eased('soft', (since + 1) / PUSHES);
  }, 0);
  const [first = cue] = members;
  return styleOf(programme, first).down === 'top' ? up : -up;
}

/** The box around all cues of a group as they stand together. */
export function boxOfGroup(
  programme: Programme,
  row: readonly Cue[],
  group: Id,
  shaper: TextShaper,
): Box {
  const boxes = membersOf(row, group).map((cue) => layOutInGroup(programme, row, cue, shaper).box);
  const x = Math.min(...boxes.map((box) => box.x));
  const y = Math.min(...boxes.map((box) => box.y));
  const right = Math.max(...boxes.map((box) => box.x + box.w));
  const bottom = Math.max(...boxes.map((box) => box.y + box.h));
  return { x, y, w: right - x, h: bottom - y };
}
