/**
 * How sure it is that a word lies where it was put, from 0 to 1.
 *
 * A logistic function of how well the sound fits the word, its worst phone, its length, its neighbours and how far the
 * coarse pass had put it from there. It is fitted on made-up narrations (`bench/narrations.py`, seeds 1 and 2) whose words
 * have known times: clean, in noise, over tones, 2 to 11 dB over noise and music, with scripts that differ, and with scripts
 * of another sound (`training/confidence.py`). It is the share of such words that lie within 100 ms. Singing has weights of
 * its own, fitted on made-up songs. Most songs are easier than those, so the odds that were fitted are doubled.
 */
import type { Placed, Places } from './placed.ts';

/** A word is sure from here on. */
export const SURE = 0.75;

/** How many words to either side count as neighbours, and how badly one fits that was not said. */
const NEAR = 4;
const UNSAID = 20;

/** At most this many frames of that count beside a word: a script may begin or end anywhere. */
const MOST_STRANGE = 50;

/** How badly the words around each fit, on the whole. */
export function fitAround(
  places: Places,
  of: (place: Placed) => number = ({ short }) => short,
): number[] {
  const all = places.map((place) => (place ? of(place) : UNSAID));
  return all.map((_, at) => {
    const near = all.slice(Math.max(0, at - NEAR), at + NEAR + 1);
    return near.reduce((sum, short) => sum + short, 0) / near.length;
  });
}

/** What share of the time around each word is of what is not written: words found here and there are chance. */
function strangeAround(places: Places): number[] {
  return places.map((_, at) => {
    let [said, strange] = [0, 0];
    for (const place of places.slice(Math.max(0, at - NEAR), at + NEAR + 1)) {
      if (!place) continue;
      said += place.to - place.from;
      // Each side of a gap counts half of it.
      strange += Math.min(MOST_STRANGE, place.strange / 2);
    }
    return said > 0 ? strange / (said + strange) : 0;
  });
}

/** The logarithm of odds, of a chance that is never quite 0 nor 1. */
const oddsOf = (chance: number): number => Math.log((chance + 0.003) / (1.003 - chance));

/**
 * What tells how sure each word is, in the order of {@link OF_SPEECH}; undefined where it has no place.
 *
 * @param roughly  the frame at which the coarse pass had each begin
 * @param chances  how likely each is to begin where it does, of all the ways in which the words may lie
 */
export function signsOf(
  places: Places,
  roughly: readonly (number | undefined)[] = [],
  chances?: readonly (number | undefined)[],
): (readonly number[] | undefined)[] {
  const around = fitAround(places);
  const aroundOwn = fitAround(places, ({ shortOwn }) => shortOwn);
  const strange = strangeAround(places);
  return places.map((place, at) => {
    if (!place) return undefined;
    const rough = roughly[at] ?? place.from;
    return [
      place.short,
      place.shortOwn,
      place.worst,
      Math.log(place.pace),
      Math.log(place.to - place.from),
      around[at] as number,
      aroundOwn[at] as number,
      (strange[at] as number) ** 2,
      place.shortHeard,
      Math.log(1 + Math.abs(rough - place.from)),
      1,
      ...(chances ? [oddsOf(chances[at] ?? 0)] : []),
    ];
  });
}

/** By how much the odds, as a logarithm, change with each sign. That of what is not written was set by hand for speech. */
const OF_SPEECH = [
  0.012, -0.3036, -0.1461, -0.5919, 0.5413, -0.5974, -0.0393, -18, -0.7995, -0.7072, 5.373,
];
const OF_SINGING = [
  0.2065, -0.175, -0.2905, -1.405, 1.006, -0.2897, -0.4317, 3.365, -1.271, -0.6114, 4.316,
];
/** The same where it is known how likely each word is to begin where it does; that is the last sign. */
const OF_SINGING_IN_ALL = [
  0.2787, -0.2081, -0.2559, -1.496, 0.9985, -0.1096, -0.481, -0.3019, -1.147, -0.3025, 3.39, 0.4646,
];

/** How sure a word is by its signs, from 0 to 1; 0 without any. */
export function sureBy(signs: readonly number[] | undefined, singing: boolean): number {
  if (!signs) return 0;
  const ofSinging = signs.length > OF_SINGING.length ? OF_SINGING_IN_ALL : OF_SINGING;
  const weights = singing ? ofSinging : OF_SPEECH;
  const odds = signs.reduce((sum, sign, at) => sum + sign * (weights[at] as number), 0);
  return 1 / (1 + Math.exp(-odds));
}

/** A word that is less sure than this was placed by chance. */
const CHANCE = 0.1;

/**
 * Places without those that are there by chance among words that were not said: where a run of script is missing in the
 * sound, a few of its words are always found somewhere.
 *
 * @param sure  how sure each word is
 */
export function withoutChance(places: Places, sure: readonly number[]): Places {
  const kept = [...places];
  for (let from = 0; from < places.length;) {
    let to = from;
    while (to < places.length && (!places[to] || (sure[to] as number) < CHANCE)) to++;
    if (places.slice(from, to).includes(undefined)) kept.fill(undefined, from, to);
    from = to + 1;
  }
  return kept;
}

/** Of each word; 0 where it has no place. */
export const confidences = (places: Places, singing = false): number[] =>
  signsOf(places).map((signs) => sureBy(signs, singing));
