/** Cues whose words have their times, cut anew: at pauses and by sense, or so many words a cue. */
import { plainText, slice, type Line } from '../../../text/lines.ts';
import { endsSentence } from '../../../text/sentences.ts';
import { wordsOf } from '../../../text/words.ts';
import { frameAfter, frameBefore } from '../../../time/frameRate.ts';
import { add, earlier, later, subtract, type Ticks } from '../../../time/ticks.ts';
import type { Woven } from '../../../weave/woven.ts';
import { create, update, type Change, type Edit } from '../../record/change.ts';
import { cutWoven, wordTimes, type CutCue } from '../../woven/cutWoven.ts';
import { laterPart } from './laterPart.ts';
import { shortestCue } from '../../record/limits.ts';
import { cuesInOrder } from '../../order.ts';
import type { Cue, Id, Programme, WordTime } from '../../programme.ts';
import { timesOf } from '../../woven/reworded.ts';
import { plural } from '../../../text/plural.ts';

/** How cues are cut. */
export type Cut =
  | { readonly by: 'sense' }
  | {
      readonly by: 'words';
      /** Words a cue. */
      readonly count: number;
      /** A cue stays until the next where the pause between is no longer than this. */
      readonly hold: Ticks;
      /** Whether words stay until their sentence ends: each cue has those before it too, and all go together. */
      readonly build?: boolean;
    };

/** A cue and those that it would become. */
export interface CutInto {
  readonly cue: Cue;
  readonly parts: readonly CutCue[];
}

const asWoven = (time: WordTime | undefined): Woven =>
  time
    ? { start: time.start, end: time.end, confidence: time.confidence ?? 1, source: 'woven' }
    : { start: null, end: null, confidence: 0, source: 'woven' };

/** Groups of a number of words; words without a time go with those before them. */
function byWords(
  text: readonly Line[],
  times: readonly Woven[],
  { count, build = false }: Extract<Cut, { by: 'words' }>,
): CutCue[] {
  const placed = wordsOf(plainText(text));
  const parts: CutCue[] = [];
  let [from, timed] = [0, 0];
  /** Where the sentence begins that is built up. */
  let begun = 0;
  const close = (to: number) => {
    const [first, last] = [placed[build ? begun : from], placed[to - 1]];
    if (!first || !last) return;
    const timesFrom = (at: number) =>
      wordTimes(
        placed.slice(at, to).map((word) => word.text),
        times.slice(at, to),
      );
    const own = timesFrom(from);
    const [start, end] = [own[0]?.start, own.at(-1)?.end];
    const shown = build ? timesFrom(begun) : own;
    if (start !== undefined && end !== undefined)
      parts.push({ start, end, text: slice(text, first.from, last.to), words: shown });
    if (endsSentence(last.text)) begun = to;
    [from, timed] = [to, 0];
  };
  placed.forEach((_, at) => {
    const said = (times[at]?.start ?? null) !== null;
    const sentence = build && endsSentence(placed[at - 1]?.text ?? '');
    if (said && timed > 0 && (timed === count || sentence)) close(at);
    if (said) timed++;
  });
  close(placed.length);
  return parts;
}

/** What cues would become; those without times, and those that stay as they are, are left out. */
export function cutInto(programme: Programme, strand: Id, ids: readonly Id[], cut: Cut): CutInto[] {
  const chosen = new Set(ids);
  const { lines, longestLine } = programme.facts.profile;
  return cuesInOrder(programme, strand).flatMap((cue): CutInto[] => {
    if (!chosen.has(cue.id) || cue.words.length === 0) return [];
    const words = wordsOf(plainText(cue.text)).map(({ text }) => text);
    const before = timesOf(cue.words, words);
    const times = before.map(asWoven);
    const made =
      cut.by === 'sense'
        ? cutWoven([cue.text], times, { limits: { lines, longestLine } })
        : byWords(cue.text, times, cut);
    if (made.length < 2) return [];
    // Each word keeps where its time came from.
    const parts = made.map((part) => ({
      ...part,
      words: part.words.map(
        (word) =>
          before.find((time) => time?.start === word.start && time.text === word.text) ?? word,
      ),
    }));
    return [{ cue, parts }];
  });
}

/** Whether a text goes on where another was. */
const continues = (before: readonly Line[], after: readonly Line[]): boolean =>
  plainText(after).startsWith(plainText(before));

/** Puts the cues that `cutInto` tells in the place of those that they were, at whole frames. */
export function cutCues(
  programme: Programme,
  strand: Id,
  ids: readonly Id[],
  cut: Cut,
  newId: () => Id,
): Edit {
  const { frameRate } = programme.facts;
  const shortest = shortestCue(programme);
  const row = cuesInOrder(programme, strand);
  const all = cutInto(programme, strand, ids, cut);
  let [crowded, count] = [0, 0];
  const changes = all.flatMap(({ cue, parts }): Change[] => {
    const next = row[row.indexOf(cue) + 1];
    const most = next ? later(cue.end, next.start) : undefined;
    // Where there are more parts than frames, it stays whole.
    if (parts.length > Math.floor(((most ?? Infinity) - cue.start) / shortest)) {
      crowded++;
      return [];
    }
    count += parts.length;
    let free = cue.start;
    return parts.flatMap((part, at): Change[] => {
      const after = parts[at + 1];
      const grows = cut.by === 'words' && cut.build && after && continues(part.text, after.text);
      const held =
        cut.by === 'words' && after && (grows || subtract(after.start, part.end) <= cut.hold)
          ? frameBefore(after.start, frameRate)
          : frameAfter(part.end, frameRate);
      const left = (parts.length - at - 1) * shortest;
      const start = later(free, frameBefore(part.start, frameRate));
      const last = most === undefined ? held : earlier(held, subtract(most, left as Ticks));
      const end = later(add(start, shortest), last);
      free = end;
      const { text, words } = part;
      // What is built up begins with words that were said before it.
      const untied = cut.by === 'words' && cut.build ? { startTie: null, endTie: null } : {};
      return at === 0
        ? update('cue', cue, { start, end, text, words, ...untied })
        : [create('cue', laterPart(cue, { id: newId(), start, end, text, words, ...untied }))];
    });
  });
  const cutCount = all.length - crowded;
  return {
    name: `Cut ${plural(cutCount, 'cue')} into ${String(count)}`,
    changes,
    ...(crowded > 0 && {
      note: `${plural(crowded, 'cue is', 'cues are')} too short to be cut.`,
    }),
  };
}
