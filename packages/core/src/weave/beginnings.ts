/**
 * How likely each word is to begin at each instant, over all ways in which the words may lie: the forward–backward
 * algorithm (Baum et al., 1970) on the coarse scores. A path is the one likeliest way. This tells whether others are
 * nearly as likely, and where a word begins in most of them.
 */
import type { CoarseScores } from './coarsePass.ts';

/** A word in its turn. */
export interface ChainedWord {
  /** Its phones in turn, as the model counts them; one at least. */
  readonly phones: readonly number[];
  /** Whether a line begins with it: there may be other singing before it, and a pause is likely. */
  readonly isFirst: boolean;
  /** The coarse frames in which it is looked for: from one up to another; neither is before that of the word before. */
  readonly from: number;
  readonly to: number;
  /** Coarse frames beside which it hardly begins. */
  readonly bounds?: { readonly from: number; readonly to: number } | undefined;
}

/** What is known of the phones of a model. */
export interface Phones {
  readonly silence: number;
  readonly isVowel: readonly boolean[];
}

/** How likely a word is to begin in each coarse frame from `from` on; they come to 1. */
export interface Beginnings {
  readonly from: number;
  readonly chances: Float32Array;
}

/** Neighbouring frames say nearly the same: each counts for so much of itself. */
const NEWS = 0.2;
/** How likely it is that a phone lasts for another coarse frame. */
const STAYS = { vowel: 0.9, consonant: 0.85, silence: 0.8, strange: 0.97 };
/** How likely a pause is within a line and between two, and singing that is not written between two. */
const PAUSE = { within: 0.01, between: 0.5 };
const STRANGE = 0.02;
/** From a pause to singing that is not written, and back. */
const FROM_PAUSE = 0.03;
const TO_PAUSE = 0.5;
/** By how much singing that is not written is less likely than the best sound there is. */
const WORSE = 2;
/** How much less likely a word begins where it is not bound to. */
const OUT_OF_BOUNDS = 1e-6;
/** Every so many frames the way there is kept; what lies between is worked out again on the way back. */
const BLOCK = 64;

/** What a state lies in, and what it leads to. */
interface Chain {
  /** The phone that is heard in each state, or -1 for what is not written. */
  readonly phone: Int16Array;
  readonly stays: Float64Array;
  /** Before each word, and after the last, a pause and what is not written; then come its phones. */
  readonly gap: Int32Array;
  readonly first: Int32Array;
  /** How likely a pause, or what is not written, comes before each word. */
  readonly pause: Float64Array;
  readonly strange: Float64Array;
}

function chainOf(words: readonly ChainedWord[], { silence, isVowel }: Phones): Chain {
  const phone: number[] = [];
  const stays: number[] = [];
  const gap: number[] = [];
  const first: number[] = [];
  const pause: number[] = [];
  const strange: number[] = [];
  const addGap = (isFirst: boolean) => {
    gap.push(phone.length);
    phone.push(silence, -1);
    stays.push(STAYS.silence, STAYS.strange);
    pause.push(isFirst ? PAUSE.between : PAUSE.within);
    strange.push(isFirst ? STRANGE : 0);
  };
  for (const word of words) {
    addGap(word.isFirst);
    first.push(phone.length);
    for (const own of word.phones) {
      phone.push(own);
      stays.push(isVowel[own] ? STAYS.vowel : STAYS.consonant);
    }
  }
  addGap(true);
  return {
    phone: Int16Array.from(phone),
    stays: Float64Array.from(stays),
    gap: Int32Array.from(gap),
    first: Int32Array.from(first),
    pause: Float64Array.from(pause),
    strange: Float64Array.from(strange),
  };
}

/** Values of the states that take part in a frame, from one up to another; the others are 0. */
class Row {
  readonly values: Float64Array;
  low = 0;
  high = 0;

  constructor(states: number) {
    this.values = new Float64Array(states);
  }

  /** Nothing is in any state; those of another range take part. */
  take(low: number, high: number): void {
    this.values.fill(0, this.low, this.high);
    [this.low, this.high] = [low, high];
  }

  /** Takes the values of another row. */
  copy({ values, low, high }: Pick<Row, 'low' | 'high'> & { values: Float64Array }): void {
    this.take(low, high);
    this.values.set(
      values.length === this.values.length ? values.subarray(low, high) : values,
      low,
    );
  }

  /** Values that come to one; gives what they had come to. */
  scale(): number {
    const { values, low, high } = this;
    let sum = 0;
    for (let at = low; at < high; at++) sum += values[at] as number;
    if (sum > 0) for (let at = low; at < high; at++) values[at] = (values[at] as number) / sum;
    return sum;
  }

  /** What the products of both come to. */
  times({ values: other }: Row): number {
    const { values, low, high } = this;
    let sum = 0;
    for (let at = low; at < high; at++) sum += (values[at] as number) * (other[at] as number);
    return sum;
  }
}

/** Goes through a chain frame by frame, forward and back. Only words whose time it is take part. */
class Passage {
  readonly #chain: Chain;
  readonly #words: readonly ChainedWord[];
  readonly #coarse: CoarseScores;
  readonly #heard: Float64Array;
  /** How likely each word is to be entered in the frame that was stepped to last. */
  readonly #entering: Float64Array;
  #about: readonly [number, number] = [0, 0];

  constructor(coarse: CoarseScores, words: readonly ChainedWord[], phones: Phones) {
    this.#coarse = coarse;
    this.#words = words;
    this.#chain = chainOf(words, phones);
    this.#heard = new Float64Array(coarse.phones);
    this.#entering = new Float64Array(words.length);
  }

  row(): Row {
    return new Row(this.#chain.phone.length);
  }

  /** The words whose time a frame is: from one up to another. */
  #wordsAt(frame: number): readonly [number, number] {
    const words = this.#words;
    // Frames are gone through in turn: the words are about those of the frame before.
    let [first, last] = this.#about;
    while (first < words.length - 1 && (words[first] as ChainedWord).to <= frame) first++;
    while (first > 0 && (words[first - 1] as ChainedWord).to > frame) first--;
    while (last < words.length && (words[last] as ChainedWord).from <= frame) last++;
    while (last > 0 && (words[last - 1] as ChainedWord).from > frame) last--;
    this.#about = [first, last];
    return this.#about;
  }

  /** The states of the words whose time a frame is. */
  #takePart(row: Row, frame: number): void {
    const { gap, first, phone } = this.#chain;
    const [from, to] = this.#wordsAt(frame);
    row.take(gap[from] as number, to < first.length ? (gap[to] as number) : phone.length);
  }

  /** Multiplies values of states by how likely what is heard in a frame is in each. */
  #hear({ values, low, high }: Row, frame: number): void {
    const { phones, scores } = this.#coarse;
    const { phone } = this.#chain;
    const [heard, from] = [this.#heard, frame * phones];
    let best = -Infinity;
    for (let at = 0; at < phones; at++) best = Math.max(best, scores[from + at] as number);
    for (let at = 0; at < phones; at++)
      heard[at] = Math.exp(NEWS * ((scores[from + at] as number) - best));
    const strange = Math.exp(-NEWS * WORSE);
    for (let state = low; state < high; state++) {
      const own = phone[state] as number;
      values[state] = (values[state] as number) * (own < 0 ? strange : (heard[own] as number));
    }
  }

  #inBounds(word: number, frame: number): number {
    const { bounds } = this.#words[word] as ChainedWord;
    return !bounds || (frame >= bounds.from && frame <= bounds.to) ? 1 : OUT_OF_BOUNDS;
  }

  /**
   * Into `next`, how likely each state is in a frame, by how likely it was in the one before, if there is one.
   *
   * @returns  how much less likely it has become that anything is true
   */
  forward(now: Row | undefined, next: Row, frame: number): number {
    this.#takePart(next, frame);
    if (now) this.#step(now.values, next.values, frame);
    else this.#begin(next.values);
    this.#hear(next, frame);
    return next.scale();
  }

  #begin(next: Float64Array): void {
    const { gap, first, pause, strange } = this.#chain;
    const [silent, other] = [pause[0] as number, strange[0] as number];
    next[gap[0] as number] = silent;
    next[(gap[0] as number) + 1] = other;
    this.#entering[0] = 1 - silent - other;
    next[first[0] as number] = this.#entering[0];
  }

  #step(now: Float64Array, next: Float64Array, frame: number): void {
    const { stays, gap, first, pause, strange } = this.#chain;
    const goes = (state: number) => (now[state] as number) * (1 - (stays[state] as number));
    const stay = (state: number) => (now[state] as number) * (stays[state] as number);
    const [from, to] = this.#wordsAt(frame);
    for (let word = from; word <= to; word++) {
      const isLast = word === first.length;
      if (word === to && !isLast) break;
      const [silent, other] = [gap[word] as number, (gap[word] as number) + 1];
      const said = word > 0 ? goes(silent - 1) : 0;
      const mayBeStrange = (strange[word] as number) > 0;
      next[silent] = stay(silent) + said * (pause[word] as number) + TO_PAUSE * goes(other);
      next[other] =
        stay(other) +
        said * (strange[word] as number) +
        (mayBeStrange ? FROM_PAUSE * goes(silent) : 0);
      if (isLast) break;
      const begun = first[word] as number;
      const entering =
        this.#inBounds(word, frame) *
        (said * (1 - (pause[word] as number) - (strange[word] as number)) +
          (mayBeStrange ? 1 - FROM_PAUSE : 1) * goes(silent) +
          (1 - TO_PAUSE) * goes(other));
      this.#entering[word] = entering;
      next[begun] = stay(begun) + entering;
      for (let state = begun + 1; state < (gap[word + 1] as number); state++)
        next[state] = stay(state) + goes(state - 1);
    }
  }

  /** The first word whose time a frame is, and how likely it and those after it are to be entered in it. */
  enteringAt(frame: number): { readonly first: number; readonly entering: Float64Array } {
    const [first, last] = this.#wordsAt(frame);
    return { first, entering: this.#entering.slice(first, last) };
  }

  /** Into `onward`, how likely what is heard from a frame on is in each of its states, by what comes after it. */
  onward(after: Row, onward: Row, frame: number): void {
    onward.copy(after);
    this.#hear(onward, frame);
  }

  /** Into `before`, how likely what follows is from each state of a frame, by what it is from each of the next one. */
  back({ values: after }: Row, row: Row, frame: number): void {
    this.#takePart(row, frame);
    const before = row.values;
    const { stays, gap, first, pause, strange } = this.#chain;
    const [from, to] = this.#wordsAt(frame);
    const set = (state: number, onward: number) => {
      const stay = stays[state] as number;
      before[state] = stay * (after[state] as number) + (1 - stay) * onward;
    };
    const entered = (word: number) =>
      word < first.length
        ? this.#inBounds(word, frame + 1) * (after[first[word] as number] as number)
        : 0;
    for (let word = from; word <= to; word++) {
      const isLast = word === first.length;
      if (word === to && !isLast) break;
      const [silent, other] = [gap[word] as number, (gap[word] as number) + 1];
      const begun = entered(word);
      set(
        silent,
        (strange[word] as number) > 0
          ? FROM_PAUSE * (after[other] as number) + (1 - FROM_PAUSE) * begun
          : begun,
      );
      set(other, TO_PAUSE * (after[silent] as number) + (1 - TO_PAUSE) * begun);
      if (isLast) break;
      const end = (gap[word + 1] as number) - 1;
      for (let state = first[word] as number; state < end; state++)
        set(state, after[state + 1] as number);
      const [silentNext, strangeNext] = [pause[word + 1] as number, strange[word + 1] as number];
      set(
        end,
        silentNext * (after[end + 1] as number) +
          strangeNext * (after[end + 2] as number) +
          (1 - silentNext - strangeNext) * entered(word + 1),
      );
    }
    row.scale();
  }

  /** Everything has been said after the last frame. */
  end(row: Row, frame: number): void {
    this.#takePart(row, frame);
    // The end of the last word, a pause, and what is not written.
    row.values.fill(1, row.high - 3, row.high);
  }

  /** The state in which a word is begun. */
  firstOf(word: number): number {
    return this.#chain.first[word] as number;
  }
}

/**
 * @param words  in their turn; none is looked for outside its frames
 * @returns      undefined where the words cannot lie in their frames
 */
export function beginningsOf(
  coarse: CoarseScores,
  words: readonly ChainedWord[],
  phones: Phones,
): Beginnings[] | undefined {
  const [start, end] = [words[0]?.from ?? 0, words.at(-1)?.to ?? 0];
  if (words.length === 0 || end <= start) return [];
  const passage = new Passage(coarse, words, phones);
  const block = Array.from({ length: BLOCK }, () => passage.row());
  const led = passage.row();
  /** What was in each state before each block. */
  const kept: { low: number; high: number; values: Float64Array }[] = [];
  let now: Row | undefined;
  for (let frame = start; frame < end; frame++) {
    if ((frame - start) % BLOCK === 0) {
      const { values, low, high } = now ?? led;
      kept.push({ low, high, values: values.slice(low, high) });
    }
    const next = block[(frame - start) % 2] as Row;
    if (passage.forward(now, next, frame) === 0) return undefined;
    now = next;
  }

  const found = words.map(({ from, to }) => ({ from, chances: new Float32Array(to - from) }));
  let [after, before] = [passage.row(), passage.row()];
  const onward = passage.row();
  passage.end(after, end - 1);
  for (let at = kept.length - 1; at >= 0; at--) {
    const first = start + at * BLOCK;
    const count = Math.min(end - first, BLOCK);
    led.copy(kept[at] as (typeof kept)[number]);
    // The block once more, this time all of it kept.
    const steps = Array.from({ length: count }, (_, place) => {
      const lead = place === 0 ? led : block[place - 1];
      const isStart = first + place === start;
      const sum = passage.forward(isStart ? undefined : lead, block[place] as Row, first + place);
      return { ...passage.enteringAt(first + place), sum };
    });
    for (let place = count - 1; place >= 0; place--) {
      const frame = first + place;
      const step = steps[place] as (typeof steps)[number];
      const all = step.sum * (block[place] as Row).times(after);
      if (all === 0) return undefined;
      passage.onward(after, onward, frame);
      step.entering.forEach((entering, word) => {
        const { from, chances } = found[step.first + word] as Beginnings;
        const goesOn = onward.values[passage.firstOf(step.first + word)] as number;
        chances[frame - from] = (entering * goesOn) / all;
      });
      if (frame > start) passage.back(onward, before, frame - 1);
      [after, before] = [before, after];
    }
  }
  for (const { chances } of found) {
    const sum = chances.reduce((all, chance) => all + chance, 0);
    if (sum > 0) chances.forEach((chance, place) => (chances[place] = chance / sum));
  }
  return found;
}
