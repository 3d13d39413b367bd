/** Sounds of keys: cut out of a recording of typing, and laid under letters. */
import { chance } from '../movement/random.ts';
import { soundsHeard } from '../programme/heard.ts';
import { hitsInOrder } from '../programme/order.ts';
import type { Cue, Id, KeySounds, Programme } from '../programme/programme.ts';
import { strokesOf } from '../programme/strokes.ts';
import { countFrames, frames } from '../time/frameRate.ts';
import { overlap, type Range } from '../time/range.ts';
import { add, fromSeconds, toSeconds, type Ticks } from '../time/ticks.ts';
import type { StereoChunk } from './stereo.ts';

/** A hit of a recording, in seconds from its start. */
export interface Heard {
  readonly start: number;
  readonly levelDb: number;
}

/** A stretch of a recording with one stroke in it, in seconds. */
export interface KeyStretch {
  readonly start: number;
  readonly end: number;
  /** When the key is heard as it is let go, if it is. */
  readonly letGo?: number;
}

/** A key that is let go sounds within this after its stroke, in seconds, and by so many decibels weaker. */
const [RELEASE, WEAKER] = [0.16, 6];
/** What share of strokes has the sound of its key being let go, in a recording in which that is heard. */
const MOSTLY = 0.6;
/** How long a stroke rings at most, and how long before its start it is cut, in seconds. */
const [LONGEST, BEFORE] = [0.35, 0.003];

/** Hits, each with the one after it that is the same key being let go. */
function paired<T extends Heard>(hits: readonly T[]): { stroke: T; letGo?: T }[] {
  const pairs: { stroke: T; letGo?: T }[] = [];
  for (const hit of hits) {
    const last = pairs.at(-1);
    const isLetGo =
      last &&
      hit.start - last.stroke.start < RELEASE &&
      hit.levelDb <= last.stroke.levelDb - WEAKER;
    if (isLetGo) last.letGo ??= hit;
    else pairs.push({ stroke: hit });
  }
  return hits.length - pairs.length >= MOSTLY * pairs.length
    ? pairs
    : hits.map((stroke) => ({ stroke }));
}

/** The hits of a recording that are strokes: where keys are heard as they are let go, those hits are none. */
export const strokesAmong = <T extends Heard>(hits: readonly T[]): T[] =>
  paired(hits).map(({ stroke }) => stroke);

/** The stretches of a recording of typing that hold a stroke each; a key that is let go is in its stroke's. */
export const strokesIn = (hits: readonly Heard[]): KeyStretch[] =>
  paired(hits).map(({ stroke: { start }, letGo }, at, pairs) => ({
    start,
    end: Math.min(start + LONGEST, (pairs[at + 1]?.stroke.start ?? Infinity) - BEFORE),
    ...(letGo && { letGo: letGo.start }),
  }));

/** The strokes of a material, from the hits that were found in it. */
export const strokesOfMaterial = (programme: Pick<Programme, 'hits'>, material: Id): KeyStretch[] =>
  strokesIn(
    hitsInOrder(programme, material).map(({ start, level }) => ({
      start: toSeconds(start),
      levelDb: level,
    })),
  );

/** A stroke cut out: its samples, and at which of them it is struck. */
export interface Key {
  readonly samples: StereoChunk;
  readonly struck: number;
}

/** A stroke begins where it first is so loud against its peak. */
const STRUCK = 0.2;
/** Its edges fade over this, in seconds. */
const [FADE_IN, FADE_OUT] = [0.001, 0.015];

/** Cuts strokes out of a recording at a rate in samples a second. */
export function cutKeys(
  [left, right]: StereoChunk,
  stretches: readonly KeyStretch[],
  rate: number,
): Key[] {
  const sample = (seconds: number) => Math.round(seconds * rate);
  const loud = (at: number) => Math.max(Math.abs(left[at] ?? 0), Math.abs(right[at] ?? 0));
  return stretches.map(({ start, end }): Key => {
    const from = Math.max(0, sample(start - BEFORE));
    const to = Math.max(from, Math.min(left.length, sample(end)));
    let peak = 0;
    for (let at = from; at < Math.min(to, from + sample(0.05)); at++)
      peak = Math.max(peak, loud(at));
    let struck = from;
    while (struck < to && loud(struck) < STRUCK * peak) struck++;
    const fadeIn = Math.min(sample(FADE_IN), Math.max(1, struck - from));
    const fadeOut = sample(FADE_OUT);
    const cut = (channel: Float32Array) =>
      channel
        .slice(from, to)
        .map((value, at) => value * Math.min(1, (at + 1) / fadeIn, (to - from - at) / fadeOut));
    const one = cut(left);
    return { samples: [one, left === right ? one : cut(right)], struck: struck - from };
  });
}

/** How a stroke is laid: which of the keys of its recording, when, and how loud on each side. */
export interface LaidKey {
  readonly at: Ticks;
  readonly material: Id;
  readonly key: number;
  /** Factors. */
  readonly left: number;
  readonly right: number;
  /** How long it is heard from when it is struck, in seconds: not until the next one. */
  readonly sounds: number;
}

/** A key that is let go so short before the next one is struck would be taken for it, in seconds. */
const CLEAR = 0.08;
/** How long it is still before a key is struck, in seconds. */
const STILL = 0.012;

/** How long a key is heard if the next one is struck so many seconds later. */
function soundsFor({ start, end, letGo = Infinity }: KeyStretch, next: number): number {
  const isClear = letGo - start + CLEAR <= next;
  const whole = isClear ? end - start : Math.min(end, letGo) - start - BEFORE;
  return Math.max(0, Math.min(whole, next - STILL));
}

/** By how much strokes differ at most: decibels to each side, and the share by which a side is weaker. */
const [MOST_DECIBELS, MOST_ASIDE] = [4, 0.5];

/** A stroke that the next one cuts off sooner than this is not used where so many others are there; in seconds. */
const [SHORTEST, ENOUGH] = [0.06, 3];
const lengthOfStretch = (stretch: KeyStretch | undefined): number =>
  stretch ? stretch.end - stretch.start : 0;

/** Which key each letter is struck with, and how: no two beside each other are the same, as far as there are two. */
export function keysFor(
  letters: readonly string[],
  stretches: readonly KeyStretch[],
  { level, varied, seed, space, enter }: Omit<KeySounds, 'material'>,
): { readonly key: number; readonly left: number; readonly right: number }[] {
  const next = chance(seed);
  const nearest = (to: Ticks | null | undefined): number => {
    if (to === null || to === undefined) return -1;
    const away = stretches.map(({ start }) => Math.abs(start - toSeconds(to)));
    return away.indexOf(Math.min(...away));
  };
  const [spaceBar, enterKey] = [nearest(space), nearest(enter)];
  const plain = stretches.map((_, at) => at).filter((at) => at !== spaceBar && at !== enterKey);
  const whole = plain.filter((at) => lengthOfStretch(stretches[at]) >= SHORTEST);
  const usual = [whole.length >= ENOUGH ? whole : plain, stretches.map((_, at) => at)].find(
    (each) => each.length > 0,
  ) as number[];
  let before = -1;
  return letters.map((letter) => {
    const others = usual.length > 1 ? usual.filter((at) => at !== before) : usual;
    const pick = others[Math.floor(next() * others.length)] ?? 0;
    const [louder, aside] = [2 * next() - 1, 2 * next() - 1];
    const own = letter === '\n' ? enterKey : letter.trim() === '' ? spaceBar : -1;
    const key = own >= 0 ? own : pick;
    before = key;
    const gain = 10 ** ((level + varied * MOST_DECIBELS * louder) / 20);
    const weaker = 1 - varied * MOST_ASIDE * Math.abs(aside);
    return {
      key,
      left: gain * (aside > 0 ? weaker : 1),
      right: gain * (aside < 0 ? weaker : 1),
    };
  });
}

type CueWithKeys = Cue & { readonly keys: KeySounds };

/** Those with key sounds among the cues of a programme: they are asked for at every frame that is played. */
const withKeys = new WeakMap<Programme['cues'], readonly CueWithKeys[]>();

/** The cues that have key sounds, as long as their recording is there. */
function cuesWithKeys({ cues, materials, strands }: Programme): CueWithKeys[] {
  const found =
    withKeys.get(cues) ??
    Object.values(cues).filter((cue): cue is CueWithKeys => Boolean(cue.keys));
  withKeys.set(cues, found);
  return found.filter(
    ({ keys, strand }) => keys.material in materials && strands[strand]?.muted !== true,
  );
}

const laidBefore = new WeakMap<Cue, { of: readonly unknown[]; keys: readonly LaidKey[] }>();

/** Every key that is heard in the programme within a range, by when it is struck. */
export function laidKeys(programme: Programme, range?: Range): LaidKey[] {
  const { frameRate, sound, frame } = programme.facts;
  const { beats, hits, marks, sounds, patterns, strands } = programme;
  const of = [frameRate, sound, frame, beats, hits, marks, sounds, patterns, strands];
  const cues = cuesWithKeys(programme).filter((cue) => !range || overlap(cue, range));
  const all = cues.flatMap((cue) => {
    const known = laidBefore.get(cue);
    if (known && of.every((part, at) => part === known.of[at])) return known.keys;
    const stretches = strokesOfMaterial(programme, cue.keys.material);
    if (stretches.length === 0) return [];
    const strokes = strokesOf(programme, cue);
    const first = countFrames(cue.start, frameRate);
    const keys = keysFor(
      strokes.map(({ text }) => text),
      stretches,
      cue.keys,
    ).map((key, at): LaidKey => {
      const struck = (place: number) => frames(first + (strokes[place]?.frame ?? 0), frameRate);
      const next = at + 1 < strokes.length ? struck(at + 1) - struck(at) : Infinity;
      return {
        ...key,
        material: cue.keys.material,
        at: struck(at),
        sounds: soundsFor(stretches[key.key] as KeyStretch, toSeconds(next as Ticks)),
      };
    });
    laidBefore.set(cue, { of, keys });
    return keys;
  });
  return all.sort((a, b) => a.at - b.at);
}

/** The recordings whose keys are under letters. */
export const recordingsOfKeys = (programme: Programme): ReadonlySet<Id> =>
  new Set(cuesWithKeys(programme).map(({ keys }) => keys.material));

/** The materials that are heard: of the sounds that are laid, and under letters. */
export const materialsHeard = (programme: Programme): ReadonlySet<Id> =>
  new Set([
    ...soundsHeard(programme).flatMap(({ material, muted }) => (muted ? [] : [material])),
    ...recordingsOfKeys(programme),
  ]);

/** Whether anything is heard. */
export const isHeard = (programme: Programme): boolean => materialsHeard(programme).size > 0;

/** How long a key may be heard after it is struck. */
export const KEY_TAIL: Ticks = fromSeconds(LONGEST);

/** The range in which keys are struck that are heard within another. */
export const struckFor = ({ start, end }: Range): Range => ({
  start: Math.max(0, start - KEY_TAIL) as Ticks,
  end: add(end, fromSeconds(BEFORE)),
});

/**
 * Adds a key to samples of which the first has a number.
 *
 * @param at      the sample at which it is struck
 * @param sounds  for how many samples it is heard after that
 * @param rate    in samples a second
 */
export function addKey(
  out: StereoChunk,
  first: number,
  { samples, struck }: Key,
  { at, sounds, gains }: StruckKey,
  rate: number,
): void {
  const start = at - struck;
  const end = Math.min(start + samples[0].length, at + sounds);
  const fade = FADE_OUT * rate;
  const [from, to] = [Math.max(first, start), Math.min(first + out[0].length, end)];
  for (const side of [0, 1] as const)
    for (let sample = from; sample < to; sample++)
      out[side][sample - first] =
        (out[side][sample - first] as number) +
        (samples[side][sample - start] as number) *
          gains[side] *
          Math.min(1, (end - sample) / fade);
}

/** When a key is struck and how long it is heard, in samples; and its gain on each side. */
export interface StruckKey {
  readonly at: number;
  readonly sounds: number;
  readonly gains: readonly [left: number, right: number];
}
