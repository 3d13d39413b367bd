/** How a roll stands: where each of its lines is from the top of the whole, in pixels of the frame. */
import type { RollLook } from '../programme/passage.ts';
import {
  inColumns,
  type Measure,
  type Placed,
  type SheetPart,
  type Stand,
} from '../text/sheet/sheet.ts';

/** Lines between two blank ones. */
export interface Block {
  readonly top: number;
  readonly height: number;
}

/**
 * Where text stands from side to side: about the middle, right up to the gutter, or on from it; or at the far edge of
 * where roles, or names, are.
 */
export type Side =
  'middle' | 'left' | 'right' | 'role' | 'name' | { readonly column: number; readonly of: number };

export type Half = 'left' | 'right';

/** A text of a roll. Texts beside each other have the same top. */
export interface RollText extends Placed {
  readonly top: number;
  readonly height: number;
  readonly size: number;
  readonly side: Side;
  /** Which half of the frame it keeps to, where lines stand beside each other; null for all of it. */
  readonly half: Half | null;
  readonly kind: 'title' | 'heading' | 'text' | 'role' | 'name';
}

/** A picture or a rule. */
export interface RollThing {
  readonly kind: 'picture' | 'rule';
  readonly name: string;
  readonly line: number;
  readonly half: Half | null;
  readonly side: 'middle' | 'left' | 'right';
  readonly top: number;
  readonly height: number;
}

/** The side of what has no columns. */
const sideOf = (stand: Stand = 'centre') => (stand === 'centre' ? 'middle' : stand);

export interface RollLayout {
  /** Of the whole, in pixels. */
  readonly height: number;
  readonly texts: readonly RollText[];
  readonly things: readonly RollThing[];
  readonly blocks: readonly Block[];
}

/** Lays a roll out from its top. Nothing is shaped: heights follow from sizes alone. */
export function layOutRoll(parts: readonly SheetPart[], look: RollLook): RollLayout {
  const texts: RollText[] = [];
  const things: RollThing[] = [];
  const blocks: Block[] = [];
  let [top, blockTop] = [0, 0];
  /** Which texts and things the block begins with. */
  let [firstText, firstThing] = [0, 0];
  let half: Half | null = null;
  /** The block before, while another one may come to stand beside it. */
  let before: {
    top: number;
    bottom: number;
    texts: [number, number];
    things: [number, number];
  } | null = null;
  const closeBlock = (): void => {
    if (half === 'right' && before) top = Math.max(top, before.bottom);
    if (top > blockTop) blocks.push({ top: blockTop, height: top - blockTop });
    before =
      half === null
        ? {
            top: blockTop,
            bottom: top,
            texts: [firstText, texts.length],
            things: [firstThing, things.length],
          }
        : null;
    half = null;
  };
  /** Sets the block before to the left, and goes on to the right of it. */
  const goBeside = (): void => {
    if (!before || half !== null) return;
    const [from, to] = before.texts;
    for (let at = from; at < to; at++) texts[at] = { ...(texts[at] as RollText), half: 'left' };
    const [first, last] = before.things;
    for (let at = first; at < last; at++)
      things[at] = { ...(things[at] as RollThing), half: 'left' };
    blocks.pop();
    top = blockTop = before.top;
    half = 'right';
  };
  const ratios: Readonly<Record<Measure, number>> = {
    usual: 1,
    larger: look.largerRatio,
    smaller: look.smallerRatio,
  };
  // Whole pixels, so that every line stands as sharp as the first.
  const lineOf = (size: number): number => Math.round(size * look.lineSpacing);
  const usual = lineOf(look.size);
  /** Puts a text at the top that is reached; a roll may have many thousands, so each is written out once. */
  const put = (
    { text, line }: Placed,
    size: number,
    height: number,
    side: Side,
    kind: RollText['kind'],
  ): void => {
    texts.push({ text, line, size, height, top, side, half, kind });
  };
  for (const part of parts) {
    if (part.beside) goBeside();
    const size = look.size * ratios[part.measure];
    switch (part.kind) {
      case 'space':
        closeBlock();
        top += part.lines * Math.round(look.blank * usual);
        blockTop = top;
        [firstText, firstThing] = [texts.length, things.length];
        break;
      case 'rule':
      case 'picture': {
        const tall = look.picture * usual * ratios[part.measure];
        const height = part.kind === 'rule' ? usual : Math.round(tall);
        const name = part.kind === 'rule' ? '' : part.name;
        const side = sideOf(part.stand);
        things.push({ kind: part.kind, name, line: part.line, half, side, top, height });
        top += height;
        break;
      }
      case 'row': {
        const roleSize = size * look.roleRatio;
        const [alone, beside] = [lineOf(size), Math.max(lineOf(size), lineOf(roleSize))];
        const names = part.names.length > 0 ? part.names : [{ text: '', line: part.line }];
        names.forEach((name, at) => {
          // Texts beside each other are as high as the higher of them.
          const first = at === 0 && part.role !== '';
          const height = first ? beside : alone;
          if (first) put({ text: part.role, line: part.line }, roleSize, height, 'role', 'role');
          put(name, size, height, 'name', 'name');
          top += height;
        });
        break;
      }
      case 'columns': {
        const columns = inColumns(part.names, part.count, part.balanced);
        const sides = columns.map((_, column) => ({ column, of: part.count }));
        const rows = Math.max(0, ...columns.map(({ length }) => length));
        const height = lineOf(size);
        for (let row = 0; row < rows; row++) {
          columns.forEach((names, column) => {
            const name = names[row];
            if (name) put(name, size, height, sides[column] ?? 'middle', 'name');
          });
          top += height;
        }
        break;
      }
      default: {
        const ratio = { title: look.titleRatio, heading: look.headingRatio, text: 1 }[part.kind];
        const own = size * ratio;
        const side = sideOf(part.stand);
        put({ text: part.text, line: part.line }, own, lineOf(own), side, part.kind);
        top += lineOf(own);
      }
    }
  }
  closeBlock();
  // What stands to the right was put after what stands to its left.
  texts.sort((a, b) => a.top - b.top);
  return { height: top, texts, things, blocks };
}
