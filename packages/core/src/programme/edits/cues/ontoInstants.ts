/** Words, lines and cues set onto beats, bar lines, marks, hits or pieces, so many each, or evenly over a time. */
import { plainLine, plainText } from '../../../text/lines.ts';
import type { Syllables } from '../../../text/language/syllables.ts';
import { wordsOf } from '../../../text/words.ts';
import { nearestFrame } from '../../../time/frameRate.ts';
import { add, later, subtract, ticks, type Ticks } from '../../../time/ticks.ts';
import { update, type Edit } from '../../record/change.ts';
import { shortestCue } from '../../record/limits.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue, Id, Programme, WordTime } from '../../programme.ts';
import { aOrMany, plural } from '../../../text/plural.ts';

export type Each = 'word' | 'syllable' | 'line' | 'cue';

/** What is set, and how. */
export interface SettingWay {
  readonly each: Each;
  /** Instants a unit, or a syllable. */
  readonly every: number;
  /** What parts words of their language. */
  readonly syllables: Syllables;
}

/** What setting comes to: shown first, then done. */
export interface Setting {
  readonly edit: Edit;
  /** Every word that is set, in order. */
  readonly words: readonly WordTime[];
  /** Words for which no instant was left. */
  readonly left: number;
}

/** Words that are set together, and how many instants they take. */
interface Unit {
  readonly words: readonly string[];
  readonly takes: number;
}

function unitsOf(cue: Cue, { each, every, syllables }: SettingWay): Unit[] {
  const textOf = (text: string) => wordsOf(text).map((word) => word.text);
  const whole = textOf(plainText(cue.text));
  switch (each) {
    case 'word':
      return whole.map((word) => ({ words: [word], takes: every }));
    case 'syllable':
      return whole.map((word) => ({ words: [word], takes: every * syllables(word).length }));
    case 'line':
      return cue.text
        .map((line) => ({ words: textOf(plainLine(line)), takes: every }))
        .filter(({ words }) => words.length > 0);
    case 'cue':
      return whole.length > 0 ? [{ words: whole, takes: every }] : [];
  }
}

/** Words within the time of their unit, by syllables. */
function spread(
  words: readonly string[],
  start: Ticks,
  end: Ticks,
  syllables: Syllables,
): WordTime[] {
  const counts = words.map((word) => syllables(word).length);
  const all = counts.reduce((sum, count) => sum + count, 0);
  let before = 0;
  return words.map((text, at) => {
    const from = add(start, ticks((before / all) * subtract(end, start)));
    before += counts[at] as number;
    return {
      text,
      start: from,
      end: add(start, ticks((before / all) * subtract(end, start))),
      source: 'spread',
    };
  });
}

/** A word whose syllables each begin with their instant. */
function split(
  word: WordTime,
  instants: readonly Ticks[],
  place: number,
  { every, syllables: partsOf }: SettingWay,
): WordTime {
  const parts = partsOf(word.text);
  let from = 0;
  const syllables = parts.slice(0, -1).map((part, at) => {
    from += part.length;
    const instant = instants[place + (at + 1) * every] ?? word.end;
    return { from, share: subtract(instant, word.start) / subtract(word.end, word.start) };
  });
  return syllables.length > 0 ? { ...word, syllables } : word;
}

/**
 * Sets cues that follow each other onto instants: each unit begins with one, and lasts until the one with which the
 * next begins. Cues begin and end with their words, at whole frames.
 *
 * It ends where the instants do, or where a cue begins that stays where it is; what is left keeps its time.
 *
 * @param instants  in order; the first unit takes the first of them
 */
export function ontoInstants(
  programme: Programme,
  strand: Id,
  ids: readonly Id[],
  instants: readonly Ticks[],
  way: SettingWay,
): Setting {
  const chosen = new Set(ids);
  const row = cuesInOrder(programme, strand);
  const cues = row.filter(({ id, text }) => chosen.has(id) && plainText(text).trim() !== '');
  const first = row.findIndex(({ id }) => id === cues[0]?.id);
  const last = row.findIndex(({ id }) => id === cues.at(-1)?.id);
  // An empty cue between them stays where it is, so it stands in the way as one that is not chosen does.
  if (last - first >= cues.length)
    return {
      edit: {
        name: 'Set words',
        changes: [],
        note: 'Select cues with text that follow each other.',
      },
      words: [],
      left: 0,
    };
  const { frameRate } = programme.facts;
  const shortest = shortestCue(programme);
  const least = row[first - 1]?.end ?? (0 as Ticks);
  const most = row[last + 1]?.start ?? (Infinity as Ticks);
  const usable = instants.filter((at) => at >= least && at <= most);
  const all: WordTime[] = [];
  let [place, left, free] = [0, 0, least];
  let over = false;
  const changes = cues.flatMap((cue) => {
    const units = unitsOf(cue, way);
    const words: WordTime[] = [];
    for (const unit of units) {
      const [start, end] = [usable[place], usable[place + unit.takes]];
      over ||= start === undefined || end === undefined;
      if (over || start === undefined || end === undefined) {
        left += unit.words.length;
        continue;
      }
      const set = spread(unit.words, start, end, way.syllables);
      words.push(
        ...(way.each === 'syllable' ? set.map((word) => split(word, usable, place, way)) : set),
      );
      place += unit.takes;
    }
    const [one, end] = [words[0], words.at(-1)];
    if (!one || !end) return [];
    all.push(...words);
    const start = later(nearestFrame(one.start, frameRate), free);
    free = later(nearestFrame(end.end, frameRate), add(start, shortest));
    return update('cue', cue, { start, end: free, words });
  });
  // Cues for which nothing was left must not lie under those that were set.
  const stays = cues.find((cue) => all.length > 0 && !changes.some(({ id }) => id === cue.id));
  const name = `Set ${aOrMany(all.length, 'word')}`;
  if (stays && stays.start < free)
    return {
      edit: {
        name,
        changes: [],
        note: 'There are too few targets: cues would overlap.',
      },
      words: [],
      left: left + all.length,
    };
  return {
    edit: {
      name,
      changes,
      ...(left > 0 && {
        note: `${plural(left, 'word was', 'words were')} left over.`,
      }),
    },
    words: all,
    left,
  };
}

/** Instants that part a time evenly, one for each syllable of some cues, and its end. */
export function evenly(
  programme: Programme,
  ids: readonly Id[],
  start: Ticks,
  end: Ticks,
  syllables: Syllables,
): Ticks[] {
  const count = ids
    .flatMap((id) => wordsOf(plainText(programme.cues[id]?.text ?? [])))
    .reduce((sum, { text }) => sum + syllables(text).length, 0);
  return Array.from({ length: count + 1 }, (_, at) =>
    add(start, ticks((subtract(end, start) * at) / Math.max(1, count))),
  );
}
