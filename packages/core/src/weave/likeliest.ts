/** Moves words of a song to where they begin in most of the ways in which all of them may lie. */
import type { Aligner } from './aligner.ts';
import { beginningsOf, type Beginnings } from './beginnings.ts';
import type { Stretch, Voice } from './fine.ts';
import { chanceAbout, inTurn } from './inTurn.ts';
import type { Token } from './lattice.ts';
import type { Placed, Places } from './placed.ts';
import { STRIDE } from './settings.ts';
import { VOWELS } from './vowels.ts';

/** How far from where a word was found it is looked for, in coarse frames: twenty seconds. */
const REACH = Math.round(2000 / STRIDE);
/** A word that is moved begins within so many frames of where it is moved to. */
const ABOUT = 1;
/** A word is moved if it lies further than this from there, in frames. */
const MOVED = 3;
/** So many frames before and after words that are moved are looked at, too. */
const BESIDE = 20;
/** The last word of a part is over within so many frames. */
const LONGEST = 200;
/** A word is moved further than this, in frames, only to where it begins in so large a share of the ways. */
const FAR = 30;
const CLEARLY = 0.5;

/** Words in their places, and how likely each is to begin where it does. */
export interface Settled {
  readonly places: Places;
  readonly chances: readonly (number | undefined)[];
}

/** The coarse frame that takes over at a frame. */
const coarse = (frame: number): number => Math.round((frame + 1) / STRIDE);

/** How likely the words of a part are to begin at each instant, by their tokens. */
function beginningsIn(
  aligner: Aligner,
  { coarse: scores }: Voice,
  tokens: readonly Token[],
  begins: (token: number) => boolean,
  part: Stretch,
  places: Places,
): Map<number, Beginnings> {
  const { phones, silence } = aligner.model;
  const [start, end] = [coarse(part.from), Math.min(scores.count, coarse(part.to))];
  const known: number[] = [];
  for (let token = part.first; token < part.last; token++) if (places[token]) known.push(token);
  let reached = end;
  const words = known.map((token) => {
    const place = places[token] as Placed;
    const at = coarse(place.from);
    const { bounds } = tokens[token] as Token;
    // Its time begins before that of the word before it is over.
    const from = Math.min(Math.max(start, at - REACH), reached - 1);
    reached = Math.min(end, at + REACH);
    return {
      phones: place.phones.map(({ phone }) => phone),
      isFirst: begins(token),
      ...{ from, to: reached },
      ...(bounds && { bounds: { from: coarse(bounds.from), to: coarse(bounds.to) } }),
    };
  });
  const found = beginningsOf(scores, words, {
    silence,
    isVowel: phones.map((name) => VOWELS.has(name)),
  });
  return new Map((found ?? []).map((own, at) => [known[at] as number, own]));
}

/** Runs of words that are likelier elsewhere, each with one word to either side. */
function movedIn(
  part: Stretch,
  places: Places,
  beginnings: ReadonlyMap<number, Beginnings>,
): { run: Stretch; to: Map<number, number> }[] {
  const moved = new Map<number, number>();
  const likeliest = inTurn([...beginnings.values()]);
  [...beginnings].forEach(([token, own], at) => {
    const place = places[token] as Placed;
    const frame = likeliest[at] as number;
    const off = Math.abs(frame - place.from);
    const gain = chanceAbout(own, coarse(frame)) - chanceAbout(own, coarse(place.from));
    if (off > MOVED && gain > (off > FAR ? CLEARLY : 0)) moved.set(token, Math.round(frame));
  });
  const runs: { run: Stretch; to: Map<number, number> }[] = [];
  let token = part.first;
  while (token < part.last) {
    if (!moved.has(token)) {
      token++;
      continue;
    }
    const first = token;
    while (token < part.last && moved.has(token)) token++;
    const [from, to] = [Math.max(part.first, first - 1), Math.min(part.last, token + 1)];
    const bound = new Map<number, number>();
    let latest = -Infinity;
    let isInTurn = true;
    for (let at = from; at < to; at++) {
      const frame = moved.get(at) ?? places[at]?.from;
      if (frame === undefined) continue;
      if (frame < latest) isInTurn = false;
      latest = frame;
      bound.set(at, frame);
    }
    const tight = {
      start: from === part.first && Boolean(part.tight?.start),
      end: to === part.last && Boolean(part.tight?.end),
    };
    const before = places.slice(part.first, from).findLast((place) => place !== undefined);
    const after = places.slice(to, part.last).find((place) => place !== undefined);
    const free = { from: before?.to ?? part.from, to: after?.from ?? part.to };
    const begun = Math.min(...bound.values());
    if (!isInTurn || begun < free.from || latest >= free.to) continue;
    // It is known when they begin: a long pause beside them need not be gone through.
    const last = moved.has(to - 1) ? undefined : places[to - 1];
    const over = last?.to ?? latest + LONGEST;
    runs.push({
      run: {
        ...{ first: from, last: to, tight },
        from: tight.start ? free.from : Math.max(free.from, begun - BESIDE),
        to: tight.end ? free.to : Math.min(free.to, over + BESIDE),
      },
      to: bound,
    });
  }
  return runs;
}

/**
 * @param begins  whether a line begins with a token
 * @param parts   what lies between pins
 */
export function likeliest(
  aligner: Aligner,
  voice: Voice,
  tokens: readonly Token[],
  begins: (token: number) => boolean,
  parts: readonly Stretch[],
  places: Places,
): Settled {
  let best = places;
  const chances: (number | undefined)[] = places.map(() => undefined);
  for (const part of parts) {
    const beginnings = beginningsIn(aligner, voice, tokens, begins, part, places);
    for (const { run, to } of movedIn(part, places, beginnings)) {
      const bound = [...tokens];
      for (const [token, frame] of to)
        bound[token] = {
          ...(tokens[token] as Token),
          leftOut: -Infinity,
          bounds: { from: frame - ABOUT, to: frame + ABOUT },
        };
      const again = aligner.places(voice, bound, run);
      best = [...best.slice(0, run.first), ...again, ...best.slice(run.last)];
    }
    for (const [token, own] of beginnings) {
      const place = best[token];
      if (place) chances[token] = chanceAbout(own, coarse(place.from));
    }
  }
  return { places: best, chances };
}
