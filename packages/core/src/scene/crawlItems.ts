/** The drawing of a crawl at an offset. */
import type { Crawl } from '../programme/passage.ts';
import type { Facts, Id } from '../programme/programme.ts';
import { unstarred } from '../text/emphasis.ts';
import type { PlacedItem } from './crawl.ts';
import type { DrawingItem } from './drawing.ts';
import { shapedLine } from './shapedLines.ts';
import type { ShapedLine, TextShaper } from './shaper.ts';
import { laidCrawl, type LaidCrawl } from './travelling.ts';

type FrameSize = Facts['frame'];

/** One line of text on the band, `x` pixels from the left of the frame. */
function textOnBand(
  { look, pane }: LaidCrawl,
  cue: Id,
  { x, text, shaped, colour }: { x: number; text: string; shaped: ShapedLine; colour: string },
  shaper: TextShaper,
): DrawingItem & { kind: 'text' } {
  const { family, size } = look;
  const { ascent, descent } = shaper.metrics(family);
  const baseline =
    pane.top + Math.round((pane.height - (ascent + descent) * size) / 2 + ascent * size);
  return {
    kind: 'text',
    text: unstarred(text),
    cue,
    box: { x, y: pane.top, w: shaped.width, h: pane.height },
    opacity: 1,
    layout: {
      style: { family, size, colour, outlineColour: '#000000', outlineWidth: 0 },
      lines: [{ x, baseline, width: shaped.width, runs: shaped.runs }],
      outOfFrame: 0,
      missing: shaped.missing,
    },
  };
}

/** The first item of some that ends after `from`, in pixels of the crawl. */
function firstAfter(items: readonly PlacedItem[], from: number): number {
  let [low, high] = [0, items.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    const { from: start, width } = items[middle] as PlacedItem;
    if (start + width <= from) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * The text of a crawl in its window.
 *
 * @param offset  distance travelled from where it is just out of sight, in pixels
 */
export function crawlText(
  crawl: Crawl,
  cue: Id,
  offset: number,
  frame: FrameSize,
  shaper: TextShaper,
): DrawingItem[] {
  const laid = laidCrawl(crawl, frame, shaper);
  const { look, items, once, between, pane } = laid;
  const found: DrawingItem[] = [];
  const wide = pane.to - pane.from;
  if (wide <= 0 || items.length === 0) return found;
  const box = { x: pane.from, y: pane.top, w: wide, h: pane.height };
  const window = { box, along: 'across' as const, reach: look.softEdge };
  const put = (at: number, text: string): void => {
    const shaped = shapedLine(text, look, shaper);
    if (at + shaped.width <= offset - wide || at >= offset) return;
    const x =
      look.towards === 'left' ? pane.to - offset + at : pane.from + offset - at - shaped.width;
    found.push({
      ...textOnBand(laid, cue, { x, text, shaped, colour: look.colour }, shaper),
      window,
    });
  };
  const round = once + between;
  const first = Math.max(0, Math.floor((offset - wide) / round));
  for (let time = first; time < look.times && time * round < offset; time++) {
    const start = time * round;
    for (let at = firstAfter(items, offset - wide - start - between); at < items.length; at++) {
      const { from, width, text } = items[at] as PlacedItem;
      if (start + from >= offset) break;
      put(start + from, text);
      const last = at === items.length - 1;
      if (!last || time < look.times - 1) put(start + from + width, look.between);
    }
  }
  return found;
}

/**
 * All that is drawn of a crawl.
 *
 * @param shown  how much of the band is faded in, from 0 to 1
 */
export function crawlItems(
  crawl: Crawl,
  cue: Id,
  { offset, shown }: { readonly offset: number; readonly shown: number },
  frame: FrameSize,
  shaper: TextShaper,
): DrawingItem[] {
  const laid = laidCrawl(crawl, frame, shaper);
  const { look, pane } = laid;
  const { top: y, height: h, label } = pane;
  const items: DrawingItem[] = [];
  if (look.band > 0 && (look.bandOpacity > 0 || look.bandBlur > 0)) {
    const x = look.insetLeft;
    const box = { x, y, w: frame.width - x - look.insetRight, h };
    items.push({
      kind: 'band',
      colour: look.bandColour,
      box,
      opacity: look.bandOpacity * shown,
      ...(look.bandBlur > 0 && { blur: look.bandBlur * shown }),
    });
  }
  items.push(...crawlText(crawl, cue, offset, frame, shaper));
  if (label) {
    const box = { x: label.from, y, w: label.to - label.from, h };
    items.push({ kind: 'plate', colour: look.labelBehind, box, opacity: shown });
    const shaped = shapedLine(look.label, { ...look, bold: true }, shaper);
    const x = Math.round(label.from + (box.w - shaped.width) / 2);
    const of = { x, text: look.label, shaped, colour: look.labelColour };
    items.push({ ...textOnBand(laid, cue, of, shaper), opacity: shown });
  }
  return items;
}
