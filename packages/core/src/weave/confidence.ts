/**
 * How sure it is that a word lies where it was put, from 0 to 1.
 *
 * A logistic function of how well the sound fits the word, its worst phone, its length and its neighbours, fitted on
 * made-up narrations (`bench/narrations.py`, seeds 1 and 2) whose words have known times: clean, in noise, over tones, with
 * scripts that differ, and with scripts of another sound. It is the share of such words that lie within 100 ms.
 */
import type { Placed, Places } from './placed.ts';

/** A word is sure from here on. */
export const SURE = 0.9;

/** How many words to either side count as neighbours, and how badly one fits that was not said. */
const NEAR = 4;
const UNSAID = 20;

/** By how much the odds, as a logarithm, change with each. */
const SHORT = 0.0367;
const SHORT_OWN = -0.3015;
const WORST = -0.1736;
const PACE = -1.8019;
const LENGTH = 0.6416;
const AROUND = -0.6025;
const AROUND_OWN = -0.4839;
const BIAS = 5.7291;
/** By how much with the square of the share of what is not written around it; set by hand. */
const STRANGE = 18;
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

/** Of each word; 0 where it has no place. */
export function confidences(places: Places): number[] {
  const around = fitAround(places);
  const aroundOwn = fitAround(places, ({ shortOwn }) => shortOwn);
  const strange = strangeAround(places);
  return places.map((place, at) => {
    if (!place) return 0;
    const odds =
      SHORT * place.short +
      SHORT_OWN * place.shortOwn +
      WORST * place.worst +
      PACE * Math.log(place.pace) +
      LENGTH * Math.log(place.to - place.from) +
      AROUND * (around[at] as number) +
      AROUND_OWN * (aroundOwn[at] as number) -
      STRANGE * (strange[at] as number) ** 2 +
      BIAS;
    return 1 / (1 + Math.exp(-odds));
  });
}
