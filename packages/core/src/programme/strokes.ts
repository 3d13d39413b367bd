/** When each key is struck for a text that comes in letter by letter. */
import { seenToCome, threadsOf, type Part } from '../movement/threads.ts';
import type { UnitKind } from '../movement/movement.ts';
import { graphemes } from '../text/graphemes.ts';
import { plainText } from '../text/lines.ts';
import { readingWeight } from '../text/readingWeight.ts';
import { wordsOf } from '../text/words.ts';
import { sayingOf, timeOfCue } from './cueTime.ts';
import { movementOf } from './patterns.ts';
import type { Cue, Programme } from './programme.ts';

export interface Stroke {
  /** The character; a space or the end of a line is a stroke too. */
  readonly text: string;
  /** The frame in which it is seen, from the start of its cue. */
  readonly frame: number;
}

/** The stroke that takes a letter away. */
export const TAKEN_AWAY = '\b';

interface Letter {
  readonly text: string;
  readonly from: number;
  readonly to: number;
}

/**
 * The strokes of a cue in the order in which they are struck; none where it does not come in by letters. Letters that are joined on
 * screen are strokes of their own. Spaces are struck between the letters beside them.
 */
export function strokesOf(programme: Programme, cue: Cue): Stroke[] {
  const movement = movementOf(programme, cue, 0);
  const coming = movement?.comesIn;
  if (!movement || coming?.by !== 'letter') return [];
  const text = plainText(cue.text);
  let place = 0;
  const all = graphemes(text).map((each): Letter => {
    const from = place;
    place += each.length;
    return { text: each, from, to: place };
  });
  const letters = all.filter((letter) => letter.text.trim() !== '');
  if (letters.length === 0) return [];
  const said = sayingOf(programme, cue);
  const part = (from: number, to: number, next: number): Part => ({
    text: text.slice(from, next),
    said: said({ from, to }),
    weight: readingWeight(text.slice(from, next)),
  });
  const comes = letters.map(({ from, to }, at) => part(from, to, letters[at + 1]?.from ?? place));
  const groups = groupsOf(movement.goes?.by ?? 'whole', text, letters);
  const go = groups.map(({ from, to }, at) => part(from, to, groups[at + 1]?.from ?? place));
  const pairs = letters.map(
    ({ from }, at) => [at, groups.findLastIndex((group) => group.from <= from)] as const,
  );
  const threads = threadsOf(movement, { comes, go, pairs }, timeOfCue(programme, cue));
  const struck = seenToCome(coming, threads);
  let letter = -1;
  const right = all.flatMap(({ text: each, from }, at): Stroke[] => {
    if (each.trim() !== '') return [{ text: each, frame: struck[++letter] ?? 0 }];
    const slip = threads.slips.find(({ part }) => part === letter + 1);
    const [before, after] = [struck[letter], slip?.struck ?? struck[letter + 1]];
    if (before === undefined || after === undefined) return [];
    const first = all.findLastIndex((other, place) => place < at && other.text.trim() !== '') + 1;
    const next = all.findIndex((other) => other.from > from && other.text.trim() !== '');
    const share = (at - first + 1) / (next - first + 1);
    return [{ text: each, frame: Math.round(before + share * (after - before)) }];
  });
  const slips = threads.slips.flatMap((slip): Stroke[] => [
    { text: slip.text, frame: slip.struck },
    { text: TAKEN_AWAY, frame: slip.away },
  ]);
  return slips.length > 0 ? [...right, ...slips].sort((a, b) => a.frame - b.frame) : right;
}

/** The units of a kind, by where they begin and end in a text. */
function groupsOf(
  kind: UnitKind,
  text: string,
  letters: readonly Letter[],
): readonly { readonly from: number; readonly to: number }[] {
  const whole = { from: letters[0]?.from ?? 0, to: letters.at(-1)?.to ?? text.length };
  switch (kind) {
    case 'letter':
      return letters;
    case 'syllable':
    case 'word': {
      const words = wordsOf(text);
      return words.length > 0 ? words : [whole];
    }
    case 'line': {
      let from = 0;
      const lines = text.split('\n').map((line) => {
        const start = from + line.length - line.trimStart().length;
        const end = from + line.trimEnd().length;
        from += line.length + 1;
        return { from: start, to: end };
      });
      return lines.filter((line) => line.to > line.from);
    }
    case 'whole':
      return [whole];
  }
}
