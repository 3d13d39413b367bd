/**
 * All ways in which a script can be said, as one graph of states: between every two words a place where they
 * follow at once and one where something else may come in, silence, noise or words that are not written; and past
 * every word a way around it, for where it was not said.
 */
import {
  ALONE,
  FIRST,
  LAST,
  STATES,
  WITHIN,
  type AcousticModel,
  type PlaceInWord,
} from './acousticModel.ts';

/** A word as it is said: its phones, in each way in which it can be said, the likeliest first. */
export type Said = readonly (readonly number[])[];

/** A word of the script and how it can be read out: words one after the other, with pauses or without. */
export interface Token {
  readonly readings: readonly (readonly Said[])[];
  /** Logarithm of the odds of its not being said. */
  readonly leftOut: number;
  /** Whether it follows within a line, so that nobody waits for long before it. */
  readonly follows?: boolean;
  /** The frames from which on it is said, and by which it has begun; further off it is dear. */
  readonly bounds?: { readonly from: number; readonly to: number } | undefined;
}

/** What a state that is not one of the model's stands for. */
export const JUNCTION = -1;
export const FILLER = -2;

/** What a state belongs to that lies before a token: less than 0, as nothing that is a token's. */
const before = (token: number): number => -1 - token;

/**
 * States in an order in which all that lead to one stand before it. Junctions say nothing: a path goes through
 * them in no time.
 */
export interface Lattice {
  readonly count: number;
  /** Which of {@link senones}, or {@link JUNCTION} or {@link FILLER}. */
  readonly emits: Int32Array;
  readonly senones: Int32Array;
  /** Logarithm of the odds of staying. */
  readonly stay: Float32Array;
  /** Where in `before` the states begin that lead to each; one more at the end. */
  readonly firstBefore: Int32Array;
  readonly before: Int32Array;
  /** The same the other way round: where each leads, at what odds, and the how manieth way into it that is, from 1. */
  readonly firstNext: Int32Array;
  readonly next: Int32Array;
  readonly odds: Float32Array;
  readonly choice: Uint8Array;
  /** The token that each belongs to, or less than 0. */
  readonly token: Int32Array;
  /** The frames from which on and up to which each is as likely as it sounds; undefined where nothing is bound. */
  readonly bounds: { readonly from: Int32Array; readonly to: Int32Array } | undefined;
  /** The phone that each belongs to, of the model. */
  readonly phone: Uint8Array;
  /** Where paths begin and end. */
  readonly start: number;
  readonly ends: readonly number[];
}

/** Logarithms of the odds of what is not written. */
export interface Costs {
  readonly pause: number;
  readonly noise: number;
  readonly filler: number;
  /** Of each frame of waiting before a word that follows within a line. */
  readonly wait: number;
}

interface Exit {
  readonly state: number;
  readonly odds: number;
}

export interface LatticeOptions {
  /** Whether each phone is one state of the three that fits best, or three in the company of its neighbours. */
  readonly coarse: boolean;
  readonly costs: Costs;
  /** The noises of the model. */
  readonly noises: readonly number[];
  /** Whether the first word begins at once, and the last ends at the end. */
  readonly tight?: { readonly start: boolean; readonly end: boolean };
}

class Builder {
  readonly emits: number[] = [];
  readonly stay: number[] = [];
  readonly before: Exit[][] = [];
  readonly token: number[] = [];
  readonly phone: number[] = [];
  readonly senones: number[] = [];
  readonly #known = new Map<number, number>();

  local(senone: number): number {
    let at = this.#known.get(senone);
    if (at === undefined) {
      at = this.senones.length;
      this.senones.push(senone);
      this.#known.set(senone, at);
    }
    return at;
  }

  add(emits: number, stay: number, before: Exit[], token: number, phone = 0): number {
    const at = this.emits.length;
    this.emits.push(emits);
    this.stay.push(stay);
    this.before.push(before);
    this.token.push(token);
    this.phone.push(phone);
    return at;
  }

  /** @param tokens  whose bounds hold */
  done(start: number, ends: number[], tokens: readonly Token[]): Lattice {
    const count = this.emits.length;
    const firstBefore = new Int32Array(count + 1);
    const firstNext = new Int32Array(count + 1);
    this.before.forEach((ways, at) => {
      firstBefore[at + 1] = (firstBefore[at] as number) + ways.length;
      for (const { state } of ways) firstNext[state + 1] = (firstNext[state + 1] as number) + 1;
    });
    for (let at = 0; at < count; at++)
      firstNext[at + 1] = (firstNext[at + 1] as number) + (firstNext[at] as number);
    const edges = firstNext[count] as number;
    const [next, odds] = [new Int32Array(edges), new Float32Array(edges)];
    const choice = new Uint8Array(edges);
    const filled = firstNext.slice();
    this.before.forEach((ways, at) => {
      ways.forEach((way, place) => {
        const to = filled[way.state] as number;
        filled[way.state] = to + 1;
        next[to] = at;
        odds[to] = way.odds;
        choice[to] = place + 1;
      });
    });
    return {
      count,
      emits: Int32Array.from(this.emits),
      senones: Int32Array.from(this.senones),
      stay: Float32Array.from(this.stay),
      firstBefore,
      before: Int32Array.from(this.before.flat(), ({ state }) => state),
      firstNext,
      next,
      odds,
      choice,
      token: Int32Array.from(this.token),
      bounds: boundsOf(this.token, tokens),
      phone: Uint8Array.from(this.phone),
      start,
      ends,
    };
  }
}

/**
 * The frames of each state. A token holds back all that come after it until it is said, and those before it when it has
 * begun.
 */
function boundsOf(tokenOf: readonly number[], tokens: readonly Token[]): Lattice['bounds'] {
  if (!tokens.some(({ bounds }) => bounds)) return undefined;
  const from: number[] = [];
  tokens.forEach(({ bounds }, at) => from.push(Math.max(from[at - 1] ?? 0, bounds?.from ?? 0)));
  /** By when each has begun. */
  const begun = tokens.map(({ bounds }) => bounds?.to ?? LATEST);
  for (let at = begun.length - 2; at >= 0; at--)
    begun[at] = Math.min(begun[at] as number, begun[at + 1] as number);
  // What lies between may be of either side; a pause within a token counts as after it.
  return {
    from: Int32Array.from(tokenOf, (token) => (token < 0 ? 0 : (from[token] as number))),
    to: Int32Array.from(tokenOf, (token) =>
      token < 0 ? (begun[-1 - token] ?? LATEST) : (begun[token + 1] ?? LATEST),
    ),
  };
}
const LATEST = 2 ** 30;

/** The graph of a script. */
export function latticeOf(
  model: AcousticModel,
  tokens: readonly Token[],
  { coarse, costs, noises, tight }: LatticeOptions,
): Lattice {
  const builder = new Builder();
  const { silence } = model;
  const states = Array.from({ length: coarse ? 1 : STATES }, (_, state) => (coarse ? 1 : state));

  /** The states of a phone, one after the other; gives the way out of them. */
  const phoneStates = (
    phone: number,
    senoneOf: (state: number) => number,
    entries: readonly Exit[],
    token: number,
    wait = 0,
  ): Exit => {
    let exit: Exit[] = [...entries];
    for (const state of states) {
      const row = phone * STATES + state;
      const at = builder.add(
        builder.local(senoneOf(state)),
        (model.stay[row] as number) + wait,
        exit,
        token,
        phone,
      );
      exit = [{ state: at, odds: model.leave[row] as number }];
    }
    return exit[0] as Exit;
  };
  const alone = (phone: number) => (state: number) => model.own[phone * STATES + state] as number;

  /** What may come in between: begins at `entries`, and again after itself. Gives the junction after it. */
  const between = (
    token: number,
    entries: readonly Exit[],
    around: readonly Exit[],
    wait = 0,
  ): number => {
    const pauses = [silence, ...noises];
    // The junction leads back to the states before it, a frame later: its place is known beforehand.
    const junction = builder.emits.length + pauses.length * states.length + 1;
    const begin = (cost: number): Exit[] =>
      [...entries, { state: junction, odds: 0 }].map(({ state, odds }) => ({
        state,
        odds: odds + cost,
      }));
    const exits = pauses.map((phone) =>
      phoneStates(
        phone,
        alone(phone),
        begin(phone === silence ? costs.pause : costs.noise),
        before(token),
        wait,
      ),
    );
    exits.push({
      state: builder.add(FILLER, wait, begin(costs.filler), before(token)),
      odds: 0,
    });
    return builder.add(JUNCTION, 0, [...exits, ...around], before(token));
  };

  /** The phones that most likely come last before a token and first in it. */
  const lastOf = tokens.map(({ readings }) => readings[0]?.at(-1)?.[0]?.at(-1) ?? silence);
  const firstOf = tokens.map(({ readings }) => readings[0]?.[0]?.[0]?.[0] ?? silence);

  const start = builder.add(JUNCTION, 0, [], before(0));
  /** Ends of what was said so far, where more follows at once and where something else comes in. */
  interface Ends {
    readonly joined: readonly Exit[];
    readonly parted: readonly Exit[];
  }
  const none: Exit[] = [{ state: start, odds: 0 }];

  /** A word in each way, from the junctions before it. */
  const word = (
    said: Said,
    [direct, after]: readonly [Exit[], Exit[]],
    [left, right]: readonly [number, number],
    token: number,
  ): Ends => {
    const joined: Exit[] = [];
    const parted: Exit[] = [];
    for (const phones of said) {
      const last = phones.length - 1;
      let exits: Exit[] = [];
      phones.forEach((phone, at) => {
        const place: PlaceInWord =
          at === 0 ? (last === 0 ? ALONE : FIRST) : at === last ? LAST : WITHIN;
        const before = at === 0 ? left : (phones[at - 1] as number);
        const next = at === last ? right : (phones[at + 1] as number);
        // In company a phone sounds otherwise beside another word and beside a pause.
        const starts: [number, Exit[]][] =
          at > 0
            ? [[before, exits]]
            : coarse
              ? [[before, [...direct, ...after]]]
              : [
                  [before, direct],
                  [silence, after],
                ];
        exits = [];
        for (const [from, entries] of starts) {
          const put = (to: number) =>
            phoneStates(
              phone,
              coarse ? alone(phone) : (state) => model.senoneOf(place, phone, from, to, state),
              entries,
              token,
            );
          const exit = put(next);
          exits.push(exit);
          if (at !== last) continue;
          joined.push(exit);
          parted.push(coarse ? exit : put(silence));
        }
      });
    }
    return { joined, parted };
  };

  let ends: Ends = { joined: none, parted: none };
  let [direct, after] = [start, start];
  tokens.forEach(({ readings, follows }, token) => {
    const skip = tokens[token - 1]?.leftOut ?? -Infinity;
    const around = (state: number): Exit[] => (skip > -Infinity ? [{ state, odds: skip }] : []);
    if (token > 0 || !tight?.start)
      after = between(token, ends.parted, around(after), follows ? costs.wait : 0);
    if (token > 0)
      direct = builder.add(JUNCTION, 0, [...ends.joined, ...around(direct)], before(token));
    const all = readings.map((reading) => {
      let own: Ends = { joined: none, parted: none };
      reading.forEach((said, at) => {
        const from: [Exit[], Exit[]] =
          at === 0
            ? [[{ state: direct, odds: 0 }], [{ state: after, odds: 0 }]]
            : [[...own.joined], [{ state: between(token + 1, own.parted, []), odds: 0 }]];
        const left =
          at === 0 ? (lastOf[token - 1] ?? silence) : (reading[at - 1]?.[0]?.at(-1) ?? silence);
        const right =
          at === reading.length - 1
            ? (firstOf[token + 1] ?? silence)
            : (reading[at + 1]?.[0]?.[0] ?? silence);
        own = word(said, from, [left, right], token);
      });
      return own;
    });
    ends = {
      joined: all.flatMap(({ joined }) => joined),
      parted: all.flatMap(({ parted }) => parted),
    };
  });
  const skip = tokens.at(-1)?.leftOut ?? -Infinity;
  const past = (state: number): Exit[] => (skip > -Infinity ? [{ state, odds: skip }] : []);
  const end = tokens.length;
  const last = builder.add(JUNCTION, 0, [...ends.joined, ...past(direct)], before(end));
  if (tight?.end) return builder.done(start, [last], tokens);
  return builder.done(start, [last, between(end, ends.parted, past(after))], tokens);
}
