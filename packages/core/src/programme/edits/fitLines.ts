/** Text broken into lines anew, and cues cut in two where it does not fit. */
import { breakLines, splitToFit, type Stretch } from '../../text/breakLines.ts';
import { plainText, slice, tidyLine, type Line } from '../../text/lines.ts';
import { readingWeight } from '../../text/readingWeight.ts';
import { frames, nearestFrame } from '../../time/frameRate.ts';
import { add, clamp, subtract, ticks, type Ticks } from '../../time/ticks.ts';
import { create, update, type Change, type Edit } from '../change.ts';
import type { Cue, Id, Programme } from '../programme.ts';

/** The lines of a cue as one, with a space where a line ended. */
const inOneLine = (text: readonly Line[]): Line =>
  tidyLine(text.flatMap((line, at) => [...(at > 0 ? [{ text: ' ' }] : []), ...line]));

const cut = (line: Line, stretches: readonly Stretch[]): Line[] =>
  stretches.map(({ from, to }) => slice([line], from, to)[0] ?? []);

/** The text of each cue that a cue is to become; one where it fits as it stands or broken anew. */
export interface Fitted {
  readonly cue: Cue;
  readonly parts: readonly (readonly Line[])[];
}

/**
 * What cues become when each is to fit the lines of the programme's profile: those that fit already are left
 * out.
 */
export function fitted(programme: Programme, ids: readonly Id[]): Fitted[] {
  const { lines, longestLine } = programme.facts.profile;
  const limits = { lines, longestLine };
  return ids.flatMap((id): Fitted[] => {
    const cue = programme.cues[id];
    if (!cue) return [];
    const written = cue.text.map((line) => plainText([line]));
    const standing = written.filter((line) => line.trim() !== '');
    if (
      standing.length <= lines &&
      standing.every((line) => breakLines(line, { ...limits, lines: 1 }))
    )
      return [];
    const one = inOneLine(cue.text);
    const parts = splitToFit(plainText([one]), limits).map((stretches) => cut(one, stretches));
    // A word that cannot be broken stays as it is.
    const isNew = parts.length > 1 || plainText(parts[0] ?? []) !== plainText(cue.text);
    return parts.length > 0 && isNew ? [{ cue, parts }] : [];
  });
}

/**
 * Breaks the text of cues into lines that fit, and cuts a cue in several where they do not: at the times of
 * its words where those are known, else by reading weight, at whole frames. A cue that is too short for a
 * frame each keeps all the parts.
 */
export function fitLines(programme: Programme, ids: readonly Id[], newId: () => Id): Edit {
  const all = fitted(programme, ids);
  const more = all.reduce((sum, { parts }) => sum + parts.length - 1, 0);
  return {
    name: `Fit the lines of ${all.length === 1 ? 'a cue' : `${all.length} cues`}`,
    changes: all.flatMap((each) => apart(programme, each, newId)),
    ...(more > 0 && {
      note: `${more} ${more === 1 ? 'cue was' : 'cues were'} added by splitting.`,
    }),
  };
}

function apart(programme: Programme, { cue, parts }: Fitted, newId: () => Id): Change[] {
  const rate = programme.facts.frameRate;
  const frame = frames(1, rate);
  const room = subtract(cue.end, cue.start) >= parts.length * frame;
  if (parts.length === 1 || !room) return update('cue', cue, { text: parts.flat() });
  const edges = edgesOf(cue, parts).map((edge, at) =>
    clamp(
      nearestFrame(edge, rate),
      add(cue.start, ticks(at * frame)),
      subtract(cue.end, ticks((parts.length - at) * frame)),
    ),
  );
  return parts.flatMap((text, at) => {
    const start = at === 0 ? cue.start : (edges[at] as Ticks);
    const end = edges[at + 1] ?? cue.end;
    const words = cue.words.filter(
      (word) => (at === 0 || word.start >= start) && (at === parts.length - 1 || word.start < end),
    );
    if (at === 0) return update('cue', cue, { end, text, words });
    return [create('cue', { ...cue, id: newId(), start, end, text, words })];
  });
}

/** When each part begins: with its first word where each word has its time, else by weight. */
function edgesOf(cue: Cue, parts: readonly (readonly Line[])[]): Ticks[] {
  const texts = parts.map((part) => plainText(part));
  const counts = texts.map((text) => text.split(/\s+/).filter((word) => word !== '').length);
  const timed = counts.reduce((sum, count) => sum + count, 0) === cue.words.length;
  const weights = texts.map(readingWeight);
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  let [word, weight] = [0, 0];
  return parts.map((_, at) => {
    const edge = timed
      ? (cue.words[word]?.start ?? cue.start)
      : add(cue.start, ticks((subtract(cue.end, cue.start) * weight) / whole));
    word += counts[at] ?? 0;
    weight += weights[at] ?? 0;
    return edge;
  });
}
