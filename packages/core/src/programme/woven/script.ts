/** A script without times becomes the cues of a strand, and a changed script is read again. */
import { diffArrays } from 'diff';
import { plainText, type Line } from '../../text/lines.ts';
import { readingWeight } from '../../text/readingWeight.ts';
import { nearestFrame } from '../../time/frameRate.ts';
import type { Range } from '../../time/range.ts';
import { add, later, subtract, ticks, ZERO, type Ticks } from '../../time/ticks.ts';
import { create, remove, type Change, type Edit } from '../record/change.ts';
import { partCue } from '../edits/cues/partCue.ts';
import { shortestCue } from '../record/limits.ts';
import { cuesInOrder } from '../order.ts';
import type { Cue, Id, Programme } from '../programme.ts';
import { plural } from '../../text/plural.ts';

/** A line of a script, as the text of a cue. */
export type ScriptLine = readonly Line[];

/** An edge this close to that of a stretch of speech is put on it. */
const NEAR = ticks(0.4 * 705_600_000);

/**
 * When each line is said, if all of them are said in `stretches` one after the other: line by line where
 * there are as many, else by reading weight over the time that is spoken.
 *
 * @param stretches  in order, none over another
 * @returns          one a line, in order, none over another
 */
export function sharedOut(lines: readonly ScriptLine[], stretches: readonly Range[]): Range[] {
  if (lines.length === stretches.length) return stretches.map(({ start, end }) => ({ start, end }));
  const spoken = stretches.reduce((sum, { start, end }) => sum + subtract(end, start), 0);
  const weights = lines.map((line) => Math.max(1, readingWeight(plainText(line))));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  let said = 0;
  const edges = weights.map((weight) => {
    const from = said / whole;
    said += weight;
    return [from * spoken, (said / whole) * spoken] as const;
  });
  return edges.map(([from, to]) => ({
    start: instantOf(from, stretches, 'start'),
    end: instantOf(to, stretches, 'end'),
  }));
}

/** The instant at which a share has been spoken, or the edge of a stretch that is near. */
function instantOf(spoken: number, stretches: readonly Range[], side: keyof Range): Ticks {
  let rest = spoken;
  for (const [at, { start, end }] of stretches.entries()) {
    const length = subtract(end, start);
    const next = stretches[at + 1];
    if (rest <= length || !next) {
      // Where one line ends and the next begins they part, one on each side of the pause.
      const before = stretches[at - 1];
      if (before && rest < NEAR) return side === 'start' ? start : before.end;
      if (next && rest > length - NEAR) return side === 'start' ? next.start : end;
      return add(start, ticks(Math.min(rest, length)));
    }
    rest -= length;
  }
  return stretches.at(-1)?.end ?? ZERO;
}

/**
 * Puts the lines of a script on a strand in place of its cues, one cue a line, shared out over stretches of
 * time at whole frames.
 *
 * A line that finds no room of the shortest cue is put to the one before it, on a line of its own, and the
 * note says so.
 */
export function cuesFromScript(
  programme: Programme,
  strand: Id,
  lines: readonly ScriptLine[],
  stretches: readonly Range[],
  newId: () => Id,
): Edit {
  const rate = programme.facts.frameRate;
  const shortest = shortestCue(programme);
  const made: Cue[] = [];
  let joined = 0;
  sharedOut(lines, stretches).forEach((range, at) => {
    const text = lines[at] ?? [];
    const before = made.at(-1);
    const start = later(nearestFrame(range.start, rate), before?.end ?? ZERO);
    const end = nearestFrame(range.end, rate);
    if (before && subtract(end, start) < shortest) {
      made[made.length - 1] = { ...before, text: [...before.text, ...text] };
      joined++;
    } else
      made.push({
        id: newId(),
        strand,
        start,
        end: later(end, add(start, shortest)),
        text,
        style: {},
        words: [],
      });
  });
  return {
    name: `Bring in a script of ${plural(lines.length, 'line')}`,
    changes: [
      ...cuesInOrder(programme, strand).map((cue) => remove('cue', cue)),
      ...made.map((cue) => create('cue', cue)),
    ],
    ...(joined > 0 && {
      note: `${plural(joined, 'line')} had no time and joined the line before.`,
    }),
  };
}

/** What became of a cue or line when a script was read again. */
export interface Reread {
  readonly kind: 'same' | 'changed' | 'new' | 'gone';
  readonly old?: string;
  readonly text?: string;
}

/**
 * Reads a changed script again: lines that stayed keep their cue and its times, changed ones keep the times
 * and take the new words, lines that went take their cue with them, and new ones share the time of the cue
 * before them by reading weight.
 */
export function rereadScript(
  programme: Programme,
  strand: Id,
  lines: readonly ScriptLine[],
  newId: () => Id,
): { edit: Edit; compared: Reread[] } {
  const cues = cuesInOrder(programme, strand);
  const compared: Reread[] = [];
  const changes: Change[] = [];
  // Each cue that stays, with the lines that come after it until the next that stays.
  const kept: { cue: Cue; lines: ScriptLine[] }[] = [];
  const early: ScriptLine[] = [];
  const words = (text: ScriptLine) => plainText(text).replace(/\s+/g, ' ').trim();
  const parts = diffArrays(
    cues.map(({ text }) => words(text)),
    lines.map(words),
  );
  let [cueAt, lineAt] = [0, 0];
  for (let at = 0; at < parts.length; at++) {
    const part = parts[at];
    if (!part) continue;
    const { length } = part.value;
    if (!part.added && !part.removed) {
      for (let count = 0; count < length; count++) {
        const [cue, line] = [cues[cueAt++] as Cue, lines[lineAt++] as ScriptLine];
        kept.push({ cue, lines: [line] });
        compared.push({ kind: 'same', text: plainText(line) });
      }
      continue;
    }
    // What went and what came in one place are the same lines, changed.
    const other = parts[at + 1];
    const paired = other && (other.added || other.removed) && other.added !== part.added;
    const gone = part.removed ? length : paired ? other.value.length : 0;
    const come = part.added ? length : paired ? other.value.length : 0;
    if (paired) at++;
    for (let count = 0; count < Math.max(gone, come); count++) {
      const cue = count < gone ? cues[cueAt++] : undefined;
      const line = count < come ? lines[lineAt++] : undefined;
      if (cue && line) {
        kept.push({ cue, lines: [line] });
        compared.push({ kind: 'changed', old: plainText(cue.text), text: plainText(line) });
      } else if (cue) {
        changes.push(remove('cue', cue));
        compared.push({ kind: 'gone', old: plainText(cue.text) });
      } else if (line) {
        (kept.at(-1)?.lines ?? early).push(line);
        compared.push({ kind: 'new', text: plainText(line) });
      }
    }
  }
  const [first] = kept;
  if (first && early.length > 0) first.lines.unshift(...early);
  for (const { cue, lines: own } of kept) changes.push(...partCue(programme, cue, own, newId));
  return { edit: { name: 'Update the script', changes }, compared };
}
