/** Cues as captions, for files that leave, and captions as cues, for files that come in. */
import { diffArrays } from 'diff';
import type { Caption, CaptionPlace } from '../formats/captions.ts';
import { frames, nearestFrame, type FrameRate } from '../time/frameRate.ts';
import type { Range } from '../time/range.ts';
import { add, earlier, later, subtract, ZERO, type Ticks } from '../time/ticks.ts';
import { formatTimecode } from '../time/timecode.ts';
import { isBlank, plainText, type Line } from '../text/lines.ts';
import { create, remove, update, type Edit } from './record/change.ts';
import { shortestCue } from './record/limits.ts';
import { cuesInOrder, strandsInOrder } from './order.ts';
import {
  isTravelling,
  type Cue,
  type Facts,
  type Id,
  type Programme,
  type Strand,
  type TextStyle,
  type WordTime,
} from './programme.ts';
import { styleOf } from './patterns.ts';
import { plural } from '../text/plural.ts';

/** The cues of a strand as captions, by start. Empty cues are left out. */
export function captionsOf(programme: Programme, strand: Id): Caption[] {
  return cuesInOrder(programme, strand)
    .filter((cue) => !isBlank(cue.text))
    .map((cue): Caption => {
      const { size } = cue.style;
      const place = placeOf(styleOf(programme, cue));
      return {
        start: cue.start,
        end: cue.end,
        text: asOwn(cue),
        ...(cue.words.length > 0 && { words: cue.words }),
        ...(place && { place }),
        ...(size !== undefined && { size: size / programme.facts.frame.height }),
      };
    });
}

/** Where a caption stands; undefined in the usual place. */
function placeOf({ across, down, placed, breakAt, turn }: TextStyle): CaptionPlace | undefined {
  if (across === 'centre' && down === 'bottom' && !placed && !breakAt && !turn) return undefined;
  return {
    ...{ across, down },
    ...(placed && { at: placed }),
    ...(breakAt && { width: breakAt }),
    ...(turn && { turn }),
  };
}

/** The text of a cue with what it is set in by itself: bold, and its colour. */
function asOwn({ text, style: { bold, colour } }: Cue): readonly Line[] {
  if (!bold && !colour) return text;
  return text.map((line) =>
    line.map((span) => ({ ...(colour && { colour }), ...span, ...(bold && { bold }) })),
  );
}

/** The strand whose words are meant: the one in hand, or the first with text where that holds rolls or crawls. */
export function strandOfWords(programme: Programme, inHand: Strand): Strand | undefined {
  if (!isTravelling(inHand.kind)) return inHand;
  const all = strandsInOrder(programme).filter(({ kind }) => !isTravelling(kind));
  return all.find(({ id }) => captionsOf(programme, id).length > 0) ?? all[0];
}

/** A cue of a strand from a caption, at other times. */
const cueOf = (
  caption: Caption,
  { start, end }: Range,
  id: Id,
  strand: Id,
  { frame }: Facts,
): Cue => ({
  ...{ id, strand, start, end },
  text: caption.text,
  style: {
    ...(caption.place && styleOfPlace(caption.place)),
    ...(caption.size !== undefined && { size: Math.max(1, caption.size * frame.height) }),
  },
  words: wordTimesOf(caption),
});

const styleOfPlace = ({ across, down, at, width }: CaptionPlace): Partial<TextStyle> => ({
  ...{ across, down },
  ...(at && { placed: at }),
  ...(width !== undefined && { breakAt: width }),
});

const wordTimesOf = ({ words = [] }: Caption): WordTime[] =>
  words.map((word) => ({
    text: word.text,
    start: word.start,
    end: word.end ?? word.start,
    source: 'heard' as const,
  }));

/** Captions that start on one frame become one: the later stands below. */
function joinedByStart(
  captions: readonly Caption[],
  rate: FrameRate,
): { captions: Caption[]; joined: number } {
  const made: Caption[] = [];
  for (const caption of captions) {
    const last = made.at(-1);
    if (!last || nearestFrame(last.start, rate) !== nearestFrame(caption.start, rate)) {
      made.push(caption);
      continue;
    }
    const words = [...(last.words ?? []), ...(caption.words ?? [])];
    made[made.length - 1] = {
      ...last,
      end: later(last.end, caption.end),
      text: [...last.text, ...caption.text],
      ...(words.length > 0 && { words }),
    };
  }
  return { captions: made, joined: captions.length - made.length };
}

/** The number of times that a note names. */
const NAMED = 3;

/** Times as timecodes, the first few of many. */
function namedTimes(times: readonly Ticks[], { startTimecode, frameRate }: Facts): string {
  const named = times
    .slice(0, NAMED)
    .map((time) => formatTimecode(add(time, startTimecode), frameRate));
  return `${named.join(', ')}${times.length > NAMED ? ` and ${times.length - NAMED} more` : ''}`;
}

/**
 * Puts captions on a strand in place of the cues there, at the nearest frames. Unless the strand allows overlaps, a
 * caption that overlaps the next ends where that starts, and captions that start together become one cue. Starts are
 * kept. The note says which were changed.
 */
export function cuesFromCaptions(
  programme: Programme,
  strand: Id,
  captions: readonly Caption[],
  newId: () => Id,
): Edit {
  const rate = programme.facts.frameRate;
  const frame = frames(1, rate);
  const mayOverlap = programme.strands[strand]?.overlapAllowed ?? false;
  const sorted = [...captions].sort((a, b) => a.start - b.start);
  const { captions: apart, joined } = mayOverlap
    ? { captions: sorted, joined: 0 }
    : joinedByStart(sorted, rate);
  const cut: Ticks[] = [];
  const made = apart.map((caption, at): Cue => {
    const start = nearestFrame(caption.start, rate);
    const wanted = later(nearestFrame(caption.end, rate), add(start, frame));
    const next = apart[at + 1];
    const most = next && !mayOverlap ? nearestFrame(next.start, rate) : wanted;
    const end = earlier(wanted, most);
    if (end < wanted) cut.push(start);
    return cueOf(caption, { start, end }, newId(), strand, programme.facts);
  });
  const notes = [
    ...(cut.length > 0
      ? [
          `${plural(cut.length, 'cue')} overlapped the next and now ${cut.length === 1 ? 'ends' : 'end'} earlier: ${namedTimes(cut, programme.facts)}.`,
        ]
      : []),
    ...(joined > 0
      ? [`${plural(joined, 'cue')} started together with another and joined it.`]
      : []),
  ];
  return {
    name: `Bring in ${plural(made.length, 'cue')}`,
    changes: [
      ...cuesInOrder(programme, strand).map((cue) => remove('cue', cue)),
      ...made.map((cue) => create('cue', cue)),
    ],
    ...(notes.length > 0 && { note: notes.join(' ') }),
  };
}

/**
 * Puts captions between the cues of a strand, at the nearest frames, each cut short at its neighbours. The
 * note says how many had no room and were left out.
 */
export function addCaptions(
  programme: Programme,
  strand: Id,
  captions: readonly Caption[],
  newId: () => Id,
): Edit {
  const rate = programme.facts.frameRate;
  const shortest = shortestCue(programme);
  // Where cues may overlap, nothing is in the way.
  const there = programme.strands[strand]?.overlapAllowed ? [] : cuesInOrder(programme, strand);
  const made: Cue[] = [];
  let at = 0;
  let free = ZERO;
  let leftOut = 0;
  for (const caption of [...captions].sort((a, b) => a.start - b.start)) {
    const end = nearestFrame(caption.end, rate);
    const wanted = nearestFrame(caption.start, rate);
    let start = programme.strands[strand]?.overlapAllowed ? wanted : later(wanted, free);
    for (let cue = there[at]; cue && cue.start <= start; cue = there[++at])
      start = later(start, cue.end);
    const least = start === wanted ? later(end, add(start, shortest)) : end;
    const stop = earlier(least, there[at]?.start ?? least);
    if (subtract(stop, start) < shortest) {
      leftOut++;
      continue;
    }
    made.push(cueOf(caption, { start, end: stop }, newId(), strand, programme.facts));
    free = stop;
  }
  return {
    name: `Add ${plural(made.length, 'cue')}`,
    changes: made.map((cue) => create('cue', cue)),
    ...(leftOut > 0 && {
      note: `${plural(leftOut, 'cue')} had no room between the others and ${leftOut === 1 ? 'was' : 'were'} left out.`,
    }),
  };
}

/** Words alone, as they are compared: no case, no marks, single spaces. */
const bare = (text: readonly Line[]): string =>
  plainText(text)
    .toLocaleLowerCase('und')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/**
 * Gives cues the times of captions with the same words, in order, at the nearest frames. A cue that would
 * come to lie over another stays where it was. The note says how many did not find their like.
 */
export function matchCaptions(
  programme: Programme,
  strand: Id,
  captions: readonly Caption[],
): Edit {
  const rate = programme.facts.frameRate;
  const frame = frames(1, rate);
  const cues = cuesInOrder(programme, strand);
  const sorted = [...captions].sort((a, b) => a.start - b.start);
  const wanted = new Map<Id, Cue>();
  let [cueAt, captionAt] = [0, 0];
  const words = (all: readonly { readonly text: readonly Line[] }[]) =>
    all.map(({ text }) => bare(text));
  for (const part of diffArrays(words(cues), words(sorted))) {
    for (let count = 0; count < part.value.length; count++) {
      if (!part.added && !part.removed) {
        const [cue, caption] = [cues[cueAt + count] as Cue, sorted[captionAt + count] as Caption];
        const start = nearestFrame(caption.start, rate);
        const end = later(nearestFrame(caption.end, rate), add(start, frame));
        const own = wordTimesOf(caption);
        wanted.set(cue.id, { ...cue, start, end, ...(own.length > 0 && { words: own }) });
      }
    }
    if (!part.added) cueAt += part.value.length;
    if (!part.removed) captionAt += part.value.length;
  }
  const matched = wanted.size;
  // Putting one back may push it over a second; each round puts back one at least.
  while (!programme.strands[strand]?.overlapAllowed) {
    const row = cues.map((cue) => wanted.get(cue.id) ?? cue).sort((a, b) => a.start - b.start);
    const over = row.flatMap((cue, at) => {
      const before = row[at - 1];
      return before && cue.start < before.end ? [before.id, cue.id] : [];
    });
    const back = over.filter((id) => wanted.has(id));
    if (back.length === 0) break;
    for (const id of back) wanted.delete(id);
  }
  const missing = cues.length - matched;
  const over = matched - wanted.size;
  const notes = [
    ...(missing > 0 ? [`${plural(missing, 'cue')} had no match in the file and stayed.`] : []),
    ...(over > 0 ? [`${plural(over, 'cue')} would overlap another and stayed.`] : []),
  ];
  return {
    name: `Update the times of ${plural(wanted.size, 'cue')}`,
    changes: cues.flatMap((cue) => {
      const { start, end, words: own } = wanted.get(cue.id) ?? cue;
      return update('cue', cue, { start, end, words: own });
    }),
    ...(notes.length > 0 && { note: notes.join(' ') }),
  };
}
