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
  const boxes: Ground[] = [];
  /** For each letter, the place of its word and syllable. */
  const [inWord, inSyllable]: [number[], number[]] = [[], []];
  const { ascent, descent } = shaper.metrics(family);
  let [word, syllable] = [0, 0];
  layout.set.forEach(({ line: spans, from: start }, line) => {
    const shaped = shaper.letters(asSet(spans, style), family, size, spacingOf(style), style);
    const { x, baseline } = layout.lines[line] as PlacedLine;
    for (const letter of shaped) {
      const [from, to] = [start + letter.from, start + letter.to];
      if (text.slice(from, to).trim() === '') continue;
      while (word < words.length - 1 && (words[word + 1]?.from ?? Infinity) <= from) word++;
      while (syllable < syllables.length - 1 && (syllables[syllable + 1] ?? Infinity) <= from)
        syllable++;
      inWord.push(word);
      inSyllable.push(syllable);
      letters.push({ shaped: letter, line, from, to });
      boxes.push({
        x: x + letter.start,
        y: baseline - ascent * size,
        w: letter.end - letter.start,
        h: (ascent + descent) * size,
        baseline,
      });
    }
  });
  /** Letters of which this is the same are in one unit of a kind. */
  const sharedBy = (kind: UnitKind, at: number): number | undefined => {
    if (kind === 'letter') return at;
    if (kind === 'word') return inWord[at];
    if (kind === 'syllable') return inSyllable[at];
    return kind === 'line' ? letters[at]?.line : 0;
  };
  const made = new Map<UnitKind, { units: readonly TextUnit[]; places: readonly number[] }>();
  const cut = (kind: UnitKind) => {
    const ready = made.get(kind);
    if (ready) return ready;
    /** Where each unit begins among the letters. */
    const begins: number[] = [];
    const places = letters.map((_, at) => {
      if (at === 0 || sharedBy(kind, at - 1) !== sharedBy(kind, at)) begins.push(at);
      return begins.length - 1;
    });
    const units = begins.map((first, at): TextUnit => {
      const next = begins[at + 1] ?? letters.length;
      const { from } = letters[first] as Letter;
      return {
        text: text.slice(from, letters[next]?.from ?? text.length),
        from,
        to: (letters[next - 1] as Letter).to,
        letters: letters.slice(first, next),
        box: next - first === 1 ? (boxes[first] as Ground) : around(boxes.slice(first, next)),
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
  /** The letters of a unit that are in one line follow each other. */
  const rows: Letter[][] = [];
  letters.forEach((letter, at) => {
    if (letter.line === letters[at - 1]?.line) rows.at(-1)?.push(letter);
    else rows.push([letter]);
  });
  return rows.map((row) => {
    const [first] = row as [Letter];
    const placed = layout.lines[first.line] as PlacedLine;
    if (spacing === 0) {
      const runs = row.length === 1 ? first.shaped.runs : row.flatMap(({ shaped }) => shaped.runs);
      return { ...placed, runs };
    }
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
