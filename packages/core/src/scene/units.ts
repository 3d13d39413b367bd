/** A laid-out text cut into its parts: letters, syllables, words, lines, and the whole of it. */
import type { UnitKind } from '../movement/movement.ts';
import type { Ground } from '../movement/unitState.ts';
import type { Cue } from '../programme/programme.ts';
import { timesOf } from '../programme/woven/reworded.ts';
import { plainText } from '../text/lines.ts';
import { wordsOf } from '../text/words.ts';
import type { PlacedLine } from './drawing.ts';
import { asSet, spacingOf, type TextLayout } from './layout.ts';
import { Recent } from './recent.ts';
import type { ShapedLetter, TextShaper } from './shaper.ts';

/** A letter of a text. */
export interface Letter {
  readonly shaped: ShapedLetter;
  readonly line: number;
  /** In the plain text of the cue, in UTF-16 units. */
  readonly from: number;
  readonly to: number;
}

/** What letters share that are in one unit of a kind. */
type Sharing = Readonly<Record<UnitKind, number>>;

export interface TextUnit {
  /** As it is written, with the white space that follows it. */
  readonly text: string;
  /** In the plain text of the cue, in UTF-16 units; without white space at its end. */
  readonly from: number;
  readonly to: number;
  readonly letters: readonly Letter[];
  readonly box: Ground;
}

export interface TextUnits {
  readonly letters: readonly Letter[];
  readonly of: (kind: UnitKind) => readonly TextUnit[];
  /** For each letter, the place of its unit of a kind among these. */
  readonly places: (kind: UnitKind) => readonly number[];
}

const known = new Recent<TextLayout, { words: Cue['words']; units: TextUnits }>(2000);

/** The units of the text of a cue, remembered with its layout. */
export function unitsOf(
  cue: Pick<Cue, 'text' | 'words'>,
  layout: TextLayout,
  shaper: TextShaper,
): TextUnits {
  const found = known.get(layout);
  if (found?.words === cue.words) return found.units;
  const units = cutAfresh(cue, layout, shaper);
  known.keep(layout, { words: cue.words, units });
  return units;
}

function cutAfresh(
  cue: Pick<Cue, 'text' | 'words'>,
  layout: TextLayout,
  shaper: TextShaper,
): TextUnits {
  const { style } = layout;
  const { family, size } = style;
  const text = plainText(cue.text);
  const words = wordsOf(text);
  const times = timesOf(
    cue.words,
    words.map((word) => word.text),
  );
  /** Where each syllable begins: with a word, or within it where it is split. */
  const syllables = words.flatMap(({ from }, at) => [
    from,
    ...(times[at]?.syllables ?? []).map((each) => from + each.from),
  ]);
  const letters: Letter[] = [];
  const shared: Sharing[] = [];
  let [word, syllable] = [0, 0];
  layout.set.forEach(({ line: spans, from: start }, line) => {
    const shaped = shaper.letters(asSet(spans, style), family, size, spacingOf(style), style);
    for (const letter of shaped) {
      const [from, to] = [start + letter.from, start + letter.to];
      if (text.slice(from, to).trim() === '') continue;
      while (word < words.length - 1 && (words[word + 1]?.from ?? Infinity) <= from) word++;
      while (syllable < syllables.length - 1 && (syllables[syllable + 1] ?? Infinity) <= from)
        syllable++;
      shared.push({ letter: letters.length, syllable, word, line, whole: 0 });
      letters.push({ shaped: letter, line, from, to });
    }
  });
  const { ascent, descent } = shaper.metrics(family);
  const boxes = new Map<Letter, Ground>();
  const boxOf = (letter: Letter): Ground => {
    const box = boxes.get(letter) ?? boxAfresh(letter);
    boxes.set(letter, box);
    return box;
  };
  const boxAfresh = ({ shaped, line: at }: Letter): Ground => {
    const { x, baseline } = layout.lines[at] as PlacedLine;
    return {
      x: x + shaped.start,
      y: baseline - ascent * size,
      w: shaped.end - shaped.start,
      h: (ascent + descent) * size,
      baseline,
    };
  };
  const made = new Map<UnitKind, { units: readonly TextUnit[]; places: readonly number[] }>();
  const cut = (kind: UnitKind) => {
    const ready = made.get(kind);
    if (ready) return ready;
    const groups: Letter[][] = [];
    const places = letters.map((letter, at) => {
      if (at > 0 && shared[at - 1]?.[kind] === shared[at]?.[kind]) groups.at(-1)?.push(letter);
      else groups.push([letter]);
      return groups.length - 1;
    });
    const units = groups.map((group, at): TextUnit => {
      const [first, last] = [group[0] as Letter, group.at(-1) as Letter];
      const next = groups[at + 1]?.[0];
      return {
        text: text.slice(first.from, next?.from ?? text.length),
        ...{ from: first.from, to: last.to, letters: group },
        box: around(group.map(boxOf)),
      };
    });
    const fresh = { units, places };
    made.set(kind, fresh);
    return fresh;
  };
  return { letters, of: (kind) => cut(kind).units, places: (kind) => cut(kind).places };
}

/** The box around some; its baseline is that of the lowest. */
function around(boxes: readonly Ground[]): Ground {
  let [left, top, right, bottom, baseline] = [Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  for (const box of boxes) {
    left = Math.min(left, box.x);
    top = Math.min(top, box.y);
    right = Math.max(right, box.x + box.w);
    bottom = Math.max(bottom, box.y + box.h);
    baseline = Math.max(baseline, box.baseline);
  }
  return { x: left, y: top, w: right - left, h: bottom - top, baseline };
}

/** Letters as they are painted: line by line, each moved apart by what is between them besides, in pixels. */
export function paintedLines(
  letters: readonly Letter[],
  layout: TextLayout,
  spacing = 0,
): PlacedLine[] {
  const lines = new Map<number, Letter[]>();
  for (const letter of letters) {
    const line = lines.get(letter.line);
    if (line) line.push(letter);
    else lines.set(letter.line, [letter]);
  }
  return [...lines].map(([at, row]) => {
    const placed = layout.lines[at] as PlacedLine;
    if (spacing === 0) return { ...placed, runs: row.flatMap(({ shaped }) => shaped.runs) };
    const visual = [...row].sort((a, b) => a.shaped.start - b.shaped.start);
    const middle = (visual.length - 1) / 2;
    const runs = visual.flatMap(({ shaped }, place) => {
      const by = (place - middle) * spacing;
      return shaped.runs.map((run) => ({
        ...run,
        x: run.x + by,
        glyphs: run.glyphs.map((glyph) => ({ ...glyph, x: glyph.x + by })),
        ...(run.part && {
          part: {
            from: run.part.from === null ? null : run.part.from + by,
            to: run.part.to === null ? null : run.part.to + by,
          },
        }),
      }));
    });
    return { ...placed, runs };
  });
}
