/**
 * Gives the words of a script their times on a sound: forced alignment with the acoustic model.
 *
 * A coarse pass tells where each word lies; the recording is cut at pauses; each stretch is aligned; the model is
 * brought nearer to the voice by the words that fit; each stretch is aligned again. `docs/weave.md` tells it at length.
 */
import type { Remote } from '../listen/helper.ts';
import type { Range } from '../time/range.ts';
import { fromSeconds, type Ticks } from '../time/ticks.ts';
import type { AcousticModel } from './acousticModel.ts';
import { Aligner } from './aligner.ts';
import { halfOf, type PlainVoice, type WeaveHelper } from './helper.ts';
import { cepstraOf, type Bands } from './cepstra.ts';
import { signsOf, sureBy, withoutChance } from './confidence.ts';
import type { Stretch, Voice } from './fine.ts';
import type { Language } from './languages/language.ts';
import type { Token } from './lattice.ts';
import { likeliest } from './likeliest.ts';
import { realigned } from './realign.ts';
import { asSung } from './insertions.ts';
import { sungOtherwise, whereSung } from './sungOtherwise.ts';
import { meansOf } from './means.ts';
import { withNear } from './near.ts';
import { partsOf, type Part } from './parts.ts';
import type { Placed, Places } from './placed.ts';
import { joinedScores, coarsePath, coarseScores } from './coarsePass.ts';
import { LEFT_OUT, STRIDE } from './settings.ts';
import { hearSong, type HeardSong, type SongWeights } from './song.ts';
import { heardAgain } from './heardAgain.ts';
import { hasOneOf, type Line } from './repeats.ts';
import { softlyBegun } from './softVowels.ts';
import { stretchesOf } from './stretches.ts';
import { besidePins, edgesOf, FRAME, frameAt, soundsOf } from './wordEdges.ts';
import type { Pin, Repeat, Tap, Woven } from './woven.ts';

/** Frames of speech that a voice is learnt from at most: a minute and a half. */
const LEARNT = 9000;
/** How far the progress of hearing a song has come when the network is done with it. */
const OF_SONG = 0.4;
/** How late a tap comes at most, and how early, in seconds. */
const TAPPED_LATE = 0.35;
const TAPPED_EARLY = 0.2;
/** A language that the model does not know is at best so sure. */
const FOREIGN = 0.85;

/** What is to be woven, ready to be aligned. */
interface Plan {
  readonly voice: Voice;
  readonly words: readonly string[];
  readonly fixed: ReadonlyMap<number, Pin>;
  /** The words that are said, by their places in the script, and how. */
  readonly said: readonly number[];
  /** Whether a line begins with a token. */
  readonly begins: (token: number) => boolean;
  readonly tokens: readonly Token[];
  /** What lies between pins, and the stretches that it is cut into. */
  readonly parts: readonly Stretch[];
  readonly stretches: readonly Stretch[];
  /** The frame at which the coarse pass had each token begin; undefined where it had none. */
  readonly roughly: readonly (number | undefined)[];
  readonly onSigns: WeaveOptions['onSigns'];
}

/** Fewer frames are not worth a helper. */
const WORTH = 3000;

export interface WithHelper {
  readonly helper?: Remote<WeaveHelper> | undefined;
  readonly onProgress?: (share: number) => void;
}

export interface WeaveOptions extends WithHelper {
  readonly pins?: readonly Pin[] | undefined;
  readonly taps?: readonly Tap[] | undefined;
  readonly within?: Range | undefined;
  /** The words that begin a line or a sentence, by their places; nothing is known of lines where nothing is said. */
  readonly lines?: readonly number[] | undefined;
  /** Is told by what it is judged how sure each word is, as `signsOf` has it; for `training/confidence.ts`. */
  readonly onSigns?: (signs: readonly (readonly number[] | undefined)[]) => void;
}

type WithLines = WeaveOptions & { readonly lines: readonly number[] };

const ignore = (): void => undefined;

/** Weaves scripts on one sound. */
export class Weaver {
  readonly #aligner: Aligner;
  readonly #language: Language;
  readonly #phones: ReadonlyMap<string, number>;
  /** Of the phones. */
  readonly #names: readonly string[];
  #voice: Voice | undefined;
  /** What the voice was heard in, as `SongLevels` has it; nothing where nobody sings. */
  #levels: Uint8Array | undefined;
  /** How many frames the voice was learnt from. */
  #learnt = 0;

  /** The lines that are sung again, and of what: whoever weaves asks for them after weaving did. */
  #repeats: { readonly of: string; readonly found: Repeat[] } | undefined;

  readonly #song: SongWeights | undefined;

  constructor(model: AcousticModel, language: Language, song?: SongWeights) {
    this.#song = song;
    this.#aligner = new Aligner(model);
    this.#language = language;
    this.#names = model.phones;
    this.#phones = new Map(model.phones.map((name, phone) => [name, phone]));
  }

  /**
   * Takes a sound to weave on.
   *
   * @param helper      a thread that takes its part; it keeps the sound for {@link weave}
   * @param onProgress  called now and then with the progress, from 0 to 1
   */
  async hear(bands: Bands, { helper, onProgress = ignore }: WithHelper = {}): Promise<void> {
    const { voice, meanAt } = plainVoiceOf(
      this.#forward(bands, (share) => onProgress(OF_SONG * share)),
    );
    const there = helper?.hear(voice);
    const part = helper ? { from: 0, to: halfOf(voice.frames) } : undefined;
    const done = voice.song ? OF_SONG : 0;
    const further = (share: number) => onProgress(done + (1 - done) * share);
    const here = coarseScores(this.#aligner.plain, voice, meanAt, further, part);
    const after = await there;
    if (helper && !after) throw new Error('The helper thread has no model.');
    const coarse = after ? joinedScores(here, after) : here;
    await helper?.heard(coarse);
    this.#take({ ...voice, meanAt, coarse });
    this.#levels = voice.song && bands.song?.middle;
  }

  /** The bands of a sound with its voice brought forward, and what was heard for it. */
  #forward(
    bands: Bands,
    onProgress: (share: number) => void,
  ): { readonly bands: Bands; readonly song?: HeardSong } {
    const [network, { song }] = [this.#song, bands];
    const heard =
      network && song && hearSong(network, this.#aligner.model, { ...bands, song }, onProgress);
    return heard ?? { bands };
  }

  #take(voice: Voice): void {
    this.#voice = voice;
    this.#repeats = undefined;
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
   * @param taps     words that begin from {@link TAPPED_LATE} before them to {@link TAPPED_EARLY} after them
   * @param within   only there does anything lie; the whole sound, where nothing is said
   * @param helper   a thread that has heard the same sound
   * @throws PinsCross
   */
  async weave(words: readonly string[], options: WeaveOptions = {}): Promise<Woven[]> {
    const { lines } = options;
    if (!lines) return this.#weaveOnce(words, options);
    const { onProgress: tell = ignore } = options;
    // Lines of a song are looked for again at the end.
    const most = this.#voice?.song ? BEFORE_AGAIN : 1;
    const onProgress = (share: number) => tell(most * share);
    let done = FIRST_LOOK;
    const woven = await this.#weaveLines(words, {
      ...options,
      lines,
      onProgress: (share) => onProgress(FIRST_LOOK * share),
    });
    const script = scriptOf(lines, words);
    const voice = this.#voice as Voice;
    const { pins = [], taps = [], within } = options;
    const tokens = this.#tokens(words, voice, taps);
    const asWritten = { aligner: this.#aligner, voice, tokens, script, pins, taps, within };
    let learnt = this.#learnt;
    const found = await sungOtherwise(asWritten, woven, async (turn) => {
      // The voice was learnt from lines that lay wrong.
      this.#forget();
      learnt = 0;
      const sung = asSung(script, turn, { pins, taps });
      const from = done;
      done += (1 - FIRST_LOOK) / 2;
      const all = await this.#weaveLines(
        sung.words.map((word) => words[word] as string),
        {
          ...options,
          ...sung,
          onProgress: (share) => onProgress(from + share * ((1 - FIRST_LOOK) / 2)),
        },
      );
      return words.map((_, word) => all[sung.placeOf[word] ?? -1]);
    });
    if (found === woven && learnt === 0) this.#forget();
    // Of speech that is said again an editor keeps whichever is better.
    if (!voice.song) return found;
    const again = this.repeats(words, found, {
      ...options,
      onProgress: (share) => tell(most + (1 - most) * share),
    });
    // What the editor tapped is where it was tapped.
    const free = script.filter((line) => !hasOneOf(line, taps));
    const sung = whereSung(words, free, found, again);
    this.#repeats = { of: ofRepeats(words, sung.woven, options), found: sung.again };
    return sung.woven;
  }

  /** Words as tokens, those bound that were tapped. */
  #tokens(words: readonly string[], voice: Voice, taps: readonly Tap[]): Token[] {
    const tapped = new Map(taps.map(({ index, at }) => [index, frameAt(voice, at)]));
    return words.map((word, index) => ({
      ...this.#token(word, false),
      ...boundsOf(tapped.get(index)),
    }));
  }

  /** @param options  with the words that begin a line */
  async #weaveLines(words: readonly string[], options: WithLines): Promise<Woven[]> {
    const { lines, onProgress = ignore } = options;
    const learnt = this.#learnt;
    const woven = await this.#weaveOnce(words, {
      ...options,
      onProgress: (share) => onProgress(MOSTLY * share),
    });
    if (!waitsWithin(woven, lines)) return woven;
    // What was learnt just now was learnt from what lay wrong.
    if (this.#learnt !== learnt) this.#forget();
    return this.#weaveOnce(
      words,
      { ...options, onProgress: (share) => onProgress(MOSTLY + (1 - MOSTLY) * share) },
      true,
    );
  }

  /** @param inOneGo  whether waiting within a line is dear */
  async #weaveOnce(
    words: readonly string[],
    { helper, onProgress = ignore, ...what }: WeaveOptions,
    inOneGo = false,
  ): Promise<Woven[]> {
    const plan = this.#plan(words, what, inOneGo);
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

  /**
   * Lines that are sung again where nothing is written, in the order of the sound; none of speech.
   *
   * @param woven    what {@link weave} gave for these words
   * @param options  the same as for them; only there is anything looked for
   */
  repeats(words: readonly string[], woven: readonly Woven[], options: WeaveOptions = {}): Repeat[] {
    const of = ofRepeats(words, woven, options);
    if (this.#repeats?.of !== of) this.#repeats = { of, found: this.#again(words, woven, options) };
    return this.#repeats.found;
  }

  #again(
    words: readonly string[],
    woven: readonly Woven[],
    { within, lines = [], onProgress = ignore }: WeaveOptions,
  ): Repeat[] {
    const voice = this.#voice;
    if (!voice) throw new Error('There is no sound to weave on.');
    const [aligner, names, levels] = [this.#aligner, this.#names, this.#levels];
    const where = { aligner, voice, names, within, levels };
    return heardAgain(where, woven, lines, () => this.#plan(words, { within }), onProgress);
  }

  #plan(
    words: readonly string[],
    { pins = [], taps = [], within, lines = [], onSigns }: WeaveOptions,
    inOneGo = false,
  ): Plan {
    const voice = this.#voice;
    if (!voice) throw new Error('There is no sound to weave on.');
    const fixed = new Map(pins.map((pin) => [pin.index, pin]));
    const firsts = new Set(lines);
    const tapped = new Map(taps.map(({ index, at }) => [index, frameAt(voice, at)]));
    const all = words.map((word, index) => {
      const tap = tapped.get(index);
      return {
        ...this.#token(word, fixed.has(index)),
        follows: inOneGo && !firsts.has(index),
        ...boundsOf(tap),
      };
    });
    // Words that are never said, such as dashes, take no part.
    const said = all.flatMap(({ readings }, index) => (readings.length > 0 ? [index] : []));
    const tokens = said.map((index) => all[index] as Token);
    const parts = partsOf(voice, said, pins, within);
    const roughly = tokens.map((): number | undefined => undefined);
    const stretches = parts.flatMap((part) => this.#stretches(voice, tokens, part, roughly));
    // A whole script teaches more than the one cue that may have come before it.
    if (this.#learnt < Math.min(LEARNT, framesOf(stretches))) {
      const found = this.#aligner.learn(voice, tokens, stretches, LEARNT);
      if (found && found.learnt > this.#learnt) {
        this.#aligner.adapt(found.means);
        this.#learnt = found.learnt;
      }
    }
    const begins = (token: number) => firsts.has(said[token] ?? -1);
    return { voice, words, fixed, said, begins, tokens, parts, stretches, roughly, onSigns };
  }

  /** @param inStretches  of each stretch, where its words lie */
  #woven(plan: Plan, inStretches: readonly Places[]): Woven[] {
    const { voice, words, fixed, said, tokens, parts, stretches, roughly } = plan;
    const placed: (Placed | undefined)[] = tokens.map(() => undefined);
    stretches.forEach(({ first }, at) => {
      inStretches[at]?.forEach((place, token) => {
        placed[first + token] = place;
      });
    });
    const singing = voice.song !== undefined;
    const found = realigned(this.#aligner, voice, tokens, parts, placed);
    const settled = singing
      ? likeliest(this.#aligner, voice, tokens, plan.begins, parts, found)
      : { places: found, chances: undefined };
    const all = settled.places;
    const signs = signsOf(all, roughly, settled.chances);
    const sure = signs.map((own) => sureBy(own, singing));
    // A singer swallows words that are sung all the same.
    const kept = singing ? all : withoutChance(all, sure);
    const places = this.#levels ? softlyBegun(kept, this.#levels, this.#names) : kept;
    const edges = edgesOf(voice, places);
    const tokenOf = new Map(said.map((index, token) => [index, token]));
    const woven = words.map((_, index): Woven => {
      const pin = fixed.get(index);
      const token = tokenOf.get(index);
      const [heardStart, heardEnd] = (token !== undefined && edges[token]) || [null, null];
      // A pin stands even where nothing was heard for the other side of it.
      const start = pin?.start ?? heardStart ?? pin?.end ?? null;
      const end = pin?.end ?? heardEnd ?? start;
      const sureOf = token === undefined || !places[token] ? 0 : (sure[token] as number);
      return {
        start,
        end: start !== null && end !== null && end < start ? start : end,
        confidence: pin ? 1 : sureOf * (this.#language.own ? 1 : FOREIGN),
        source: pin ? 'pinned' : 'woven',
        sounds: soundsOf(voice, token === undefined ? undefined : places[token], this.#names),
      };
    });
    plan.onSigns?.(words.map((_, index) => signs[tokenOf.get(index) ?? -1]));
    return [...withNear(voice, besidePins(woven))];
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

  /** A part cut where the coarse pass found pauses. @param roughly  is told where it had the tokens begin */
  #stretches(
    voice: Voice,
    tokens: readonly Token[],
    part: Part,
    roughly: (number | undefined)[],
  ): Stretch[] {
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
    if (!found) return [part];
    found.tokenOf.forEach((token, frame) => {
      if (token >= 0) roughly[part.first + token] ??= (from + frame) * STRIDE;
    });
    return stretchesOf(found.tokenOf, part);
  }
}

/** What lines were looked for in: the same again finds the same. */
const ofRepeats = (
  words: readonly string[],
  woven: readonly Woven[],
  { within, lines }: WeaveOptions,
): string => JSON.stringify([words, lines, within, woven.map(({ start }) => start)]);

/** Lines of a script by their words. */
const scriptOf = (lines: readonly number[], words: readonly string[]): Line[] =>
  lines.map((first, at) => ({ first, last: lines[at + 1] ?? words.length }));

/** Where a word begins that was tapped at a frame. */
const boundsOf = (tap: number | undefined): Pick<Token, 'bounds'> =>
  tap === undefined
    ? {}
    : { bounds: { from: tap - TAPPED_LATE / FRAME, to: tap + TAPPED_EARLY / FRAME } };

/** How far it has come when lines of a song are looked for where nothing is written. */
const BEFORE_AGAIN = 0.85;
/** How far it has come when lines were woven as they are written; two more looks may follow. */
const FIRST_LOOK = 0.6;

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
function plainVoiceOf({ bands, song }: { readonly bands: Bands; readonly song?: HeardSong }): {
  voice: PlainVoice;
  meanAt: Voice['meanAt'];
} {
  const frames = cepstraOf(bands);
  const { firstMiddle, loudness } = bands;
  return { voice: { frames, firstMiddle, loudness, song }, meanAt: meansOf(frames) };
}
