/**
 * When each part of a text begins to come, has landed, begins to leave, and is gone.
 *
 * All of it lies within the cue: a movement that is longer than its cue is shortened in proportion, and one unit that has
 * less time than it takes is shortened alone. Nothing is cut off.
 */
import type { ComesIn, Duration, Goes, Movement, Order } from './movement.ts';
import { countCharacters } from '../text/graphemes.ts';
import { shuffled } from './random.ts';
import { typedWithSlips, typingOf } from './typing.ts';

/** From when to when something is said, in frames from the start of the cue; before it where less than 0. */
export interface Said {
  readonly start: number;
  readonly end: number;
}

/** What is known of a part of a text. */
export interface Part {
  readonly text: string;
  /** When it is said, if that is known. */
  readonly said?: Said | undefined;
  /** How much there is to read of it. */
  readonly weight: number;
}

/** What is known of the time of a cue. All times are in frames from its start. */
export interface CueTime {
  /** Frames of the cue, one at least. */
  readonly length: number;
  readonly beats: readonly number[];
  readonly bars: readonly number[];
  readonly marks: readonly number[];
  readonly hits: readonly number[];
  /** The hits that are strokes of each drum. */
  readonly kicks?: readonly number[];
  readonly snares?: readonly number[];
  readonly closedHats?: readonly number[];
  readonly openHats?: readonly number[];
  /** How loud it is in a frame, from 0 to 1. */
  readonly energy?: (frame: number) => number;
  /** When each word begins to be said that has its time. */
  readonly words?: readonly number[];
  /** How long a beat is at its start. */
  readonly beat: number;
  /** Frames in a second. */
  readonly rate: number;
}

export interface Coming {
  /** The frame in which it is first seen. */
  readonly begins: number;
  /** The first frame in which it is as its style has it. */
  readonly lands: number;
}

export interface Going {
  /** The first frame in which it is no longer as its style has it. */
  readonly leaves: number;
  /** The first frame in which it is not seen any more. */
  readonly gone: number;
}

/** A part that is struck wrong at first: what is seen in its place, from which frame up to which. */
export interface SlippedPart {
  readonly part: number;
  readonly text: string;
  readonly struck: number;
  readonly away: number;
}

export interface Threads {
  readonly coming: readonly Coming[];
  readonly going: readonly Going[];
  /** Of how many units a movement is shorter than was asked. */
  readonly shortened: number;
  /** How many units had no instant of their own, and were spread after the others. */
  readonly without: number;
  readonly slips: readonly SlippedPart[];
}

/** The frames in which units are seen to come: as they land, or as they begin. */
export const seenToCome = (
  { arrives }: Pick<ComesIn, 'arrives'>,
  { coming }: Pick<Threads, 'coming'>,
): number[] => coming.map(({ begins, lands }) => (arrives === 'lands' ? lands : begins));

/** A length in frames. */
export const framesOf = ({ count, in: unit }: Duration, { length, beat }: CueTime): number =>
  unit === 'frames' ? count : unit === 'beats' ? count * beat : count * length;

/** The place of each of `count` units in an order. */
export function turns(order: Order, count: number, seed: number): number[] {
  const places = Array.from({ length: count }, (_, at) => at);
  if (order === 'forwards') return places;
  if (order === 'random') return shuffled(count, seed);
  const middle = (count - 1) / 2;
  const ranked = [...places];
  if (order === 'backwards') ranked.reverse();
  if (order === 'middle') ranked.sort((a, b) => Math.abs(a - middle) - Math.abs(b - middle));
  if (order === 'edges') ranked.sort((a, b) => Math.abs(b - middle) - Math.abs(a - middle));
  const turn = new Array<number>(count);
  ranked.forEach((unit, place) => (turn[unit] = place));
  return turn;
}

/** Instants for `count` units: the ones that are there, then more in the pace of the last ones, up to `end`. */
function instantsFor(found: readonly number[], count: number, end: number): number[] {
  const own = found.slice(0, count);
  const rest = count - own.length;
  if (rest <= 0) return own;
  const last = own.at(-1) ?? 0;
  const step = Math.max(0, (end - last) / (rest + (own.length > 0 ? 1 : 0)));
  const first = own.length > 0 ? last + step : 0;
  return [...own, ...Array.from({ length: rest }, (_, at) => first + at * step)];
}

/** When each unit is said; those of which it is not known are spread between the others. */
function saidOf(parts: readonly Part[], length: number): Said[] {
  return parts.map(({ said }, at) => {
    if (said) return said;
    let [before, after] = [at - 1, at + 1];
    while (before >= 0 && !parts[before]?.said) before--;
    while (after < parts.length && !parts[after]?.said) after++;
    const from = parts[before]?.said?.end ?? 0;
    const to = Math.max(from, parts[after]?.said?.start ?? length);
    const step = (to - from) / (after - before - 1);
    const start = from + (at - before - 1) * step;
    return { start, end: start + step };
  });
}

const sum = (values: readonly number[]): number => values.reduce((all, value) => all + value, 0);

interface Asked {
  /** In no way rounded or cut. */
  readonly coming: Coming[];
  readonly without: number;
  readonly slips?: readonly SlippedPart[];
}

function comingAsked(phase: ComesIn, parts: readonly Part[], time: CueTime): Asked {
  const count = parts.length;
  const { overlap, when } = phase;
  // What is said or typed comes in the order of the text.
  const order = when === 'said' || when === 'typed' ? 'forwards' : phase.order;
  const turn = turns(order, count, phase.seed);
  const takes = phase.takes && framesOf(phase.takes, time);
  const inTurn = (make: (turn: number) => Coming): Coming[] => turn.map(make);
  const at = (instants: readonly number[], ends: readonly number[], without = 0): Asked => ({
    without,
    coming: turn.map((place) => {
      const instant = (instants[place] ?? 0) - phase.early;
      const next = instants[place + 1] ?? ends[place] ?? time.length;
      const long = takes ?? Math.max(0, next - phase.early - instant) * (1 + overlap);
      return phase.arrives === 'lands'
        ? { begins: instant - long, lands: instant }
        : { begins: instant, lands: instant + long };
    }),
  });
  switch (when) {
    case 'start':
      return {
        without: 0,
        coming: inTurn(() => ({ begins: 0, lands: takes ?? time.length / 2 })),
      };
    case 'said': {
      const said = saidOf(parts, time.length);
      return at(
        said.map(({ start }) => start),
        said.map(({ end }) => end),
        parts.filter((part) => !part.said).length,
      );
    }
    case 'beats':
    case 'bars':
    case 'marks':
    case 'hits': {
      const found = time[when].filter((instant) => instant - phase.early >= 0);
      const instants = instantsFor(found, count, time.length);
      return at(instants, [], Math.max(0, count - found.length));
    }
    case 'typed': {
      const text = parts.map((part) => part.text).join('');
      const { times, slips } = typedWithSlips(text, typingOf(phase));
      const firsts: number[] = [];
      let letter = 0;
      for (const part of parts) {
        firsts.push(letter);
        letter += countCharacters(part.text);
      }
      const instant = (seconds: number) => seconds * time.rate + phase.after;
      const slipped = slips.flatMap((slip): SlippedPart[] => {
        const part = firsts.indexOf(slip.letter);
        const [struck, away] = [slip.struck, slip.away].map((each) => instant(each) - phase.early);
        return part < 0 ? [] : [{ part, text: slip.text, struck: struck ?? 0, away: away ?? 0 }];
      });
      return {
        ...at(
          firsts.map((first) => instant(times[first] ?? 0)),
          [],
        ),
        slips: slipped,
      };
    }
    case 'after': {
      const long = takes ?? time.length / Math.max(1, count);
      const step = Math.max(0, long * (1 - overlap) + phase.after);
      return {
        without: 0,
        coming: inTurn((place) => ({ begins: place * step, lands: place * step + long })),
      };
    }
    case 'evenly':
    case 'weight': {
      const all = phase.over ? framesOf(phase.over, time) : time.length;
      const weights = when === 'evenly' ? parts.map(() => 1) : weightsInTurn(parts, turn);
      const whole = sum(weights);
      const long = takes === null ? null : Math.min(takes, all);
      let before = 0;
      const starts = weights.map((weight, place) => {
        const share = when === 'evenly' && count > 1 ? place / (count - 1) : before / whole;
        before += weight;
        return share;
      });
      if (long !== null)
        return {
          without: 0,
          coming: inTurn((place) => {
            const begins = (starts[place] ?? 0) * (all - long);
            return { begins, lands: begins + long };
          }),
        };
      // Each takes its turn and laps over the next by a share of it; the last one lands at the end.
      const last = weights.at(-1) ?? 1;
      const scale = all / (whole + overlap * last);
      let from = 0;
      const own = weights.map((weight) => {
        const begins = from * scale;
        from += weight;
        return { begins, lands: begins + weight * (1 + overlap) * scale };
      });
      return { without: 0, coming: inTurn((place) => own[place] as Coming) };
    }
  }
}

/** How much there is to read of each unit, in the order in which they come; each a little, so that none stands still. */
function weightsInTurn(parts: readonly Part[], turn: readonly number[]): number[] {
  const weights = new Array<number>(parts.length);
  turn.forEach((place, unit) => (weights[place] = Math.max(0.1, parts[unit]?.weight ?? 1)));
  return weights;
}

/**
 * @param landed  when each unit that goes has come whole
 * @param next    when the unit after each begins to come; undefined for the last
 */
function goingAsked(
  phase: Goes,
  parts: readonly Part[],
  next: readonly (number | undefined)[],
  time: CueTime,
): Going[] {
  const { length } = time;
  const count = parts.length;
  const takes = phase.takes && framesOf(phase.takes, time);
  switch (phase.when) {
    case 'cut':
      return parts.map(() => ({ leaves: length, gone: length }));
    case 'end':
      return parts.map(() => ({ leaves: length - (takes ?? length / 2), gone: length }));
    case 'wave': {
      const long = takes ?? length / 2 / count;
      const step = long * (1 - phase.overlap);
      return turns(phase.order, count, phase.seed).map((place) => {
        const gone = length - (count - 1 - place) * step;
        return { leaves: gone - long, gone };
      });
    }
    case 'next':
      return parts.map((_, at) => {
        const gone = next[at] ?? length;
        return { leaves: gone - (takes ?? 0), gone };
      });
    case 'said': {
      const said = saidOf(parts, length);
      return said.map(({ end }) => ({ leaves: end, gone: end + (takes ?? 0) }));
    }
  }
}

/** Whether the times of what comes in are the sound's, which no cue may shorten. */
const heldBySound = ({ when }: ComesIn): boolean =>
  when === 'said' || when === 'beats' || when === 'bars' || when === 'marks' || when === 'hits';

const goesInProportion = ({ when }: Goes): boolean => when === 'end' || when === 'wave';

/** The units of a movement, and which of those that come in have letters in common with one that goes. */
export interface Moving {
  readonly comes: readonly Part[];
  readonly go: readonly Part[];
  readonly pairs: readonly (readonly [coming: number, going: number])[];
}

/** When each unit of a text comes in and goes, in whole frames from the start of its cue. */
export function threadsOf(
  { comesIn, goes }: Pick<Movement, 'comesIn' | 'goes'>,
  { comes, go, pairs }: Moving,
  time: CueTime,
): Threads {
  const { length } = time;
  const asked: Asked = comesIn
    ? comingAsked(comesIn, comes, time)
    : { coming: comes.map(() => ({ begins: 0, lands: 0 })), without: 0 };
  const scale = comesIn && !heldBySound(comesIn) ? scaleOf(asked.coming, goes, go, time) : 1;
  const coming = asked.coming.map(({ begins, lands }): Coming => {
    const landed = between(lands * scale, 0, length - 1);
    return { begins: between(begins * scale, 0, landed), lands: landed };
  });
  const first = new Array<number>(go.length).fill(Infinity);
  const landed = new Array<number>(go.length).fill(0);
  for (const [from, to] of pairs) {
    first[to] = Math.min(first[to] ?? 0, coming[from]?.begins ?? 0);
    landed[to] = Math.max(landed[to] ?? 0, coming[from]?.lands ?? 0);
  }
  const next = go.map((_, at) => first[at + 1]);
  const wanted = goes
    ? goingAsked(goes, go, next, time)
    : go.map(() => ({ leaves: length, gone: length }));
  // Where one goes as the next one comes, that has been shortened already.
  const goingScale = goes && goesInProportion(goes) ? scale : 1;
  const going = wanted.map(({ leaves, gone }, at): Going => {
    const here = landed[at] ?? 0;
    const end = between(length - (length - gone) * goingScale, here + 1, length);
    return { leaves: between(length - (length - leaves) * goingScale, here, end), gone: end };
  });
  const shorter = (had: number, wants: number): boolean => had < Math.floor(wants);
  const shortened =
    coming.filter(({ begins, lands }, at) => {
      const wants = asked.coming[at];
      return wants && shorter(lands - begins, wants.lands - wants.begins);
    }).length +
    going.filter(({ leaves, gone }, at) => {
      const wants = wanted[at];
      return wants && shorter(gone - leaves, wants.gone - wants.leaves);
    }).length;
  const slips = (asked.slips ?? []).map(({ struck, away, ...slip }): SlippedPart => ({
    ...slip,
    struck: between(struck * scale, 0, length - 1),
    away: between(away * scale, 0, length - 1),
  }));
  return { coming, going, shortened, without: asked.without, slips };
}

const between = (value: number, least: number, most: number): number =>
  Math.min(most, Math.max(least, Math.round(value)));

/** What all times are shortened by so that coming and going have room in the cue; 1 where they have it. */
function scaleOf(
  coming: readonly Coming[],
  goes: Goes | null,
  go: readonly Part[],
  time: CueTime,
): number {
  const comingTakes = Math.max(0, ...coming.map(({ lands }) => lands));
  const going = goes && goesInProportion(goes) ? goingAsked(goes, go, [], time) : [];
  const goingTakes = Math.max(0, ...going.map(({ leaves }) => time.length - leaves));
  return Math.min(1, time.length / (comingTakes + goingTakes || 1));
}
