/**
 * Gives the words of a script their times on a sound: forced alignment with the acoustic model.
 *
 * A coarse pass tells where each word lies; the recording is cut at pauses; each stretch is aligned; the model is
 * brought nearer to the voice by the words that fit; each stretch is aligned again. `docs/weave.md` tells it at length.
 */
import type { Remote } from '../listen/helper.ts';
import type { Range } from '../time/range.ts';
import { earlier, fromSeconds, later, toSeconds, type Ticks } from '../time/ticks.ts';
import type { AcousticModel } from './acousticModel.ts';
import { Aligner } from './aligner.ts';
import { halfOf, type PlainVoice, type WeaveHelper } from './helper.ts';
import { cepstraOf, type Bands } from './cepstra.ts';
import { confidences } from './confidence.ts';
import { edgeBesidePause } from './edges.ts';
import { framesIn, type Stretch, type Voice } from './fine.ts';
import type { Language } from './languages/language.ts';
import type { Token } from './lattice.ts';
import { realigned } from './realign.ts';
import { meansOf } from './means.ts';
import type { Placed, Places } from './placed.ts';
import { joinedScores, coarsePath, coarseScores } from './coarsePass.ts';
import { LEFT_OUT, STRIDE } from './settings.ts';
import { stretchesOf } from './stretches.ts';

/** A time that the editor fixed: of the start of a word, its end, or both. */
export interface Pin {
  readonly index: number;
  readonly start?: Ticks;
  readonly end?: Ticks;
}

/** Where a word is said; both times are null where it was not said. */
export interface Woven {
  readonly start: Ticks | null;
  readonly end: Ticks | null;
  /** From 0 to 1; see {@link SURE}. */
  readonly confidence: number;
  readonly source: 'woven' | 'pinned' | 'spread';
}

/** Pins that no path can honour. */
export class PinsCross extends Error {
  override readonly name = 'PinsCross';
  readonly index: number;
  constructor(index: number) {
    super('This pin is before the pin of an earlier word.');
    this.index = index;
  }
}

/** Frames of speech that a voice is learnt from at most: a minute and a half. */
const LEARNT = 9000;
/** The states of the model change so much later than the sound does, in seconds. */
const LATE = 0.006;
const FRAME = 0.01;
/** A language that the model does not know is at best so sure. */
const FOREIGN = 0.85;

/** A part between two pins, or between a pin and an end. */
interface Part extends Stretch {
  readonly tight: { readonly start: boolean; readonly end: boolean };
}

/** What is to be woven, ready to be aligned. */
interface Plan {
  readonly voice: Voice;
  readonly words: readonly string[];
  readonly fixed: ReadonlyMap<number, Pin>;
  /** The words that are said, by their places in the script, and how. */
  readonly said: readonly number[];
  readonly tokens: readonly Token[];
  /** What lies between pins, and the stretches that it is cut into. */
  readonly parts: readonly Stretch[];
  readonly stretches: readonly Stretch[];
}

/** Fewer frames are not worth a helper. */
const WORTH = 3000;

export interface WithHelper {
  readonly helper?: Remote<WeaveHelper> | undefined;
  readonly onProgress?: (share: number) => void;
}

export interface WeaveOptions extends WithHelper {
  readonly pins?: readonly Pin[] | undefined;
  readonly within?: Range | undefined;
  /** The words that begin a line or a sentence, by their places; nothing is known of lines where nothing is said. */
  readonly lines?: readonly number[] | undefined;
}

const ignore = (): void => undefined;

/** Weaves scripts on one sound. */
export class Weaver {
  readonly #aligner: Aligner;
  readonly #language: Language;
  readonly #phones: ReadonlyMap<string, number>;
  #voice: Voice | undefined;
  /** How many frames the voice was learnt from. */
  #learnt = 0;

  constructor(model: AcousticModel, language: Language) {
    this.#aligner = new Aligner(model);
    this.#language = language;
    this.#phones = new Map(model.phones.map((name, phone) => [name, phone]));
  }

  /**
   * Takes a sound to weave on.
   *
   * @param helper      a thread that takes its part; it keeps the sound for {@link weave}
   * @param onProgress  called now and then with the progress, from 0 to 1
   */
  async hear(bands: Bands, { helper, onProgress = ignore }: WithHelper = {}): Promise<void> {
    const { voice, meanAt } = plainVoiceOf(bands);
    const there = helper?.hear(voice);
    const part = helper ? { from: 0, to: halfOf(voice.frames) } : undefined;
    const here = coarseScores(this.#aligner.plain, voice.frames, meanAt, onProgress, part);
    const after = await there;
    if (helper && !after) throw new Error('The helper thread has no model.');
    const coarse = after ? joinedScores(here, after) : here;
    await helper?.heard(coarse);
    this.#take({ ...voice, meanAt, coarse });
  }

  #take(voice: Voice): void {
    this.#voice = voice;
    this.#forget();
  }

  /** Forgets the voice that was learnt. */
  #forget(): void {
    this.#aligner.adapt(undefined);
    this.#learnt = 0;
  }

  /**
   * A time for each word, in order.
   *
   * A line is said in one go. Where words of one come to lie far apart, as they do when some are drawn into what an
   * instrument plays, all are looked for again, and waiting within a line is dear.
   *
   * @param words    as they are written
   * @param pins     honoured to the tick
   * @param within   only there does anything lie; the whole sound, where nothing is said
   * @param helper   a thread that has heard the same sound
   * @throws PinsCross
   */
  async weave(words: readonly string[], options: WeaveOptions = {}): Promise<Woven[]> {
    const { lines, onProgress = ignore } = options;
    if (!lines) return this.#weaveOnce(words, options);
    const learnt = this.#learnt;
    const woven = await this.#weaveOnce(words, {
      ...options,
      lines: undefined,
      onProgress: (share) => onProgress(MOSTLY * share),
    });
    if (!waitsWithin(woven, lines)) return woven;
    // What was learnt just now was learnt from what lay wrong.
    if (this.#learnt !== learnt) this.#forget();
    return this.#weaveOnce(words, {
      ...options,
      onProgress: (share) => onProgress(MOSTLY + (1 - MOSTLY) * share),
    });
  }

  async #weaveOnce(
    words: readonly string[],
    { pins = [], within, helper, lines, onProgress = ignore }: WeaveOptions,
  ): Promise<Woven[]> {
    const plan = this.#plan(words, pins, within, lines);
    const { voice, tokens, stretches } = plan;
    const isShared = helper !== undefined && framesOf(stretches) >= WORTH;
    const theirs = isShared ? stretches.filter((_, at) => at % 2 === 1) : [];
    const there = helper?.place({ tokens, stretches: theirs, means: this.#aligner.means });
    const mine = isShared ? stretches.filter((_, at) => at % 2 === 0) : stretches;
    const found = new Map<Stretch, Places>();
    mine.forEach((stretch, at) => {
      found.set(stretch, this.#aligner.places(voice, tokens, stretch));
      onProgress((at + 1) / mine.length);
    });
    (await there)?.forEach((places, at) => found.set(theirs[at] as Stretch, places));
    return this.#woven(
      plan,
      stretches.map((stretch) => found.get(stretch) ?? []),
    );
  }

  #plan(
    words: readonly string[],
    pins: readonly Pin[],
    within: Range | undefined,
    lines: readonly number[] | undefined,
  ): Plan {
    const voice = this.#voice;
    if (!voice) throw new Error('There is no sound to weave on.');
    const fixed = new Map(pins.map((pin) => [pin.index, pin]));
    const begins = lines && new Set(lines);
    const all = words.map((word, index) => ({
      ...this.#token(word, fixed.has(index)),
      follows: begins ? !begins.has(index) : false,
    }));
    // Words that are never said, such as dashes, take no part.
    const said = all.flatMap(({ readings }, index) => (readings.length > 0 ? [index] : []));
    const tokens = said.map((index) => all[index] as Token);
    const parts = partsOf(voice, said, pins, within);
    const stretches = parts.flatMap((part) => this.#stretches(voice, tokens, part));
    // A whole script teaches more than the one cue that may have come before it.
    if (this.#learnt < Math.min(LEARNT, framesOf(stretches))) {
      const found = this.#aligner.learn(voice, tokens, stretches, LEARNT);
      if (found && found.learnt > this.#learnt) {
        this.#aligner.adapt(found.means);
        this.#learnt = found.learnt;
      }
    }
    return { voice, words, fixed, said, tokens, parts, stretches };
  }

  /** @param found  of each stretch, where its words lie */
  #woven(plan: Plan, found: readonly Places[]): Woven[] {
    const { voice, words, fixed, said, tokens, parts, stretches } = plan;
    const placed: (Placed | undefined)[] = tokens.map(() => undefined);
    stretches.forEach(({ first }, at) => {
      found[at]?.forEach((place, token) => {
        placed[first + token] = place;
      });
    });
    const places = realigned(this.#aligner, voice, tokens, parts, placed);
    const sure = confidences(places);
    const edges = edgesOf(voice, places);
    const tokenOf = new Map(said.map((index, token) => [index, token]));
    const woven = words.map((_, index): Woven => {
      const pin = fixed.get(index);
      const token = tokenOf.get(index);
      const [heardStart, heardEnd] = (token !== undefined && edges[token]) || [null, null];
      // A pin stands even where nothing was heard for the other side of it.
      const start = pin?.start ?? heardStart ?? pin?.end ?? null;
      const end = pin?.end ?? heardEnd ?? start;
      const sureOf = token === undefined ? 0 : (sure[token] as number);
      return {
        start,
        end: start !== null && end !== null && end < start ? start : end,
        confidence: pin ? 1 : sureOf * (this.#language.own ? 1 : FOREIGN),
        source: pin ? 'pinned' : 'woven',
      };
    });
    return besidePins(woven);
  }

  #token(word: string, pinned: boolean): Token {
    const readings = this.#language
      .readings(word)
      .map((reading) =>
        reading
          .map((said) =>
            this.#language
              .sounds(said)
              .map((names) =>
                names.flatMap((name) => {
                  const phone = this.#phones.get(name);
                  return phone === undefined ? [] : [phone];
                }),
              )
              .filter((phones) => phones.length > 0),
          )
          .filter((ways) => ways.length > 0),
      )
      .filter((reading) => reading.length > 0);
    return { readings, leftOut: pinned ? -Infinity : LEFT_OUT };
  }

  /** A part cut where the coarse pass found pauses. */
  #stretches(voice: Voice, tokens: readonly Token[], part: Part): Stretch[] {
    if (part.last === part.first || part.to <= part.from) return [];
    const from = Math.floor(part.from / STRIDE);
    const to = Math.min(voice.coarse.count, Math.ceil(part.to / STRIDE));
    const found = coarsePath(
      this.#aligner.plain,
      voice.coarse,
      tokens.slice(part.first, part.last),
      from,
      to,
    );
    return found ? stretchesOf(found.tokenOf, part) : [part];
  }
}

/** How far the progress of weaving has come when words were looked for once: few scripts need more. */
const MOSTLY = 0.9;

/** Nobody waits so long within a line. */
const LONG_WAIT = fromSeconds(1);

/** Whether words of one line lie far apart. */
function waitsWithin(woven: readonly Woven[], lines: readonly number[]): boolean {
  const begins = new Set(lines);
  let before: Ticks | null = null;
  return woven.some(({ start, end }, index) => {
    if (begins.has(index)) before = null;
    if (start === null || end === null) return false;
    const waits = before !== null && start - before > LONG_WAIT;
    before = end;
    return waits;
  });
}

const framesOf = (stretches: readonly Stretch[]): number =>
  stretches.reduce((sum, { from, to }) => sum + to - from, 0);

/** What a helper is given of a voice, and the mean around each frame. */
function plainVoiceOf(bands: Bands): { voice: PlainVoice; meanAt: Voice['meanAt'] } {
  const frames = cepstraOf(bands);
  const { firstMiddle, loudness } = bands;
  return { voice: { frames, firstMiddle, loudness }, meanAt: meansOf(frames) };
}

/** Two words with at least this many frames between them have a pause between them. */
const PAUSE = 3;

/** Start and end of each word, those beside a pause where the sound rises and sinks. */
function edgesOf(voice: Voice, places: Places): ([Ticks, Ticks] | undefined)[] {
  let before = 0;
  const ends: number[] = [];
  places.forEach((place) => {
    ends.push(before);
    before = place?.to ?? before;
  });
  let after = framesIn(voice.frames);
  const starts: number[] = [];
  for (let at = places.length - 1; at >= 0; at--) {
    starts[at] = after;
    after = places[at]?.from ?? after;
  }
  return places.map((place, at) => {
    if (!place) return undefined;
    const gapBefore = place.from - (ends[at] as number);
    const gapAfter = (starts[at] as number) - place.to;
    let [start, end] = [timeOf(voice, place.from), timeOf(voice, place.to)];
    if (gapBefore >= PAUSE) start = edgeBesidePause(voice.loudness, start, 1, gapBefore * FRAME);
    if (gapAfter >= PAUSE) end = edgeBesidePause(voice.loudness, end, -1, gapAfter * FRAME);
    return [fromSeconds(start), fromSeconds(Math.max(start, end))];
  });
}

/** Words beside a pin, which lies between two frames, end before it and begin after it. */
function besidePins(words: readonly Woven[]): Woven[] {
  const clipped = words.map((word): { -readonly [K in keyof Woven]: Woven[K] } => ({ ...word }));
  let last: number | undefined;
  clipped.forEach((word, at) => {
    const before = last === undefined ? undefined : clipped[last];
    if (word.start === null || word.end === null) return;
    if (before && before.start !== null && before.end !== null && before.end > word.start) {
      if (word.source === 'pinned') before.end = later(before.start, word.start);
      else word.start = earlier(before.end, word.end);
    }
    last = at;
  });
  return clipped;
}

/** The time at which a frame takes over from the one before it, in seconds. */
const timeOf = ({ firstMiddle }: Voice, frame: number): number =>
  Math.max(0, firstMiddle + (frame - 0.5) * FRAME - LATE);

/** The frame that takes over at a time. */
const frameAt = ({ firstMiddle }: Voice, time: Ticks): number =>
  Math.round((toSeconds(time) + LATE - firstMiddle) / FRAME + 0.5);

/**
 * What lies between pins, each part with its words.
 *
 * @param said  the indices of the words that are said, which are counted from 0 as tokens
 */
function partsOf(
  voice: Voice,
  said: readonly number[],
  pins: readonly Pin[],
  within: Range | undefined,
): Part[] {
  const count = framesIn(voice.frames);
  const clamp = (frame: number) => Math.max(0, Math.min(count, frame));
  const start = within ? clamp(frameAt(voice, within.start)) : 0;
  const end = within ? clamp(frameAt(voice, within.end)) : count;
  /** Where a part ends and the next begins: the token it begins with, and on which side it is tight. */
  const joints: { frame: number; token: number; side: 'start' | 'end'; index: number }[] = [];
  for (const pin of [...pins].sort((a, b) => a.index - b.index)) {
    const token = said.indexOf(pin.index);
    if (token < 0) continue;
    const { index } = pin;
    if (pin.start !== undefined)
      joints.push({ frame: clamp(frameAt(voice, pin.start)), token, side: 'start', index });
    if (pin.end !== undefined)
      joints.push({ frame: clamp(frameAt(voice, pin.end)), token: token + 1, side: 'end', index });
  }
  const parts: Part[] = [];
  let [from, first, tight] = [start, 0, false];
  for (const { frame, token, side, index } of joints) {
    if (frame < from) throw new PinsCross(index);
    parts.push({
      from,
      to: frame,
      first,
      last: token,
      tight: { start: tight, end: side === 'end' },
    });
    [from, first, tight] = [frame, token, side === 'start'];
  }
  parts.push({ from, to: end, first, last: said.length, tight: { start: tight, end: false } });
  return parts;
}
