/** The sound of a programme: every sound that is heard, where it lies, as loud as it is set, in one. */
import type { Range } from '../time/range.ts';
import { TICKS_PER_SECOND, type Ticks } from '../time/ticks.ts';
import { gainAt, soundsHeard, stretchOf } from '../programme/heard.ts';
import type { Id, Programme, Sound } from '../programme/programme.ts';
import {
  addKey,
  cutKeys,
  laidKeys,
  strokesOfMaterial,
  struckFor,
  type Key,
  type StruckKey,
} from './keySounds.ts';
import { Resampler } from './resample.ts';
import { toStereo, type StereoChunk } from './stereo.ts';

/** A sound as it is decoded: channels of one length, in pieces of any length, from its first sample. */
export interface Source {
  /** In samples a second. */
  readonly sampleRate: number;
  chunks(): AsyncIterable<readonly Float32Array[]>;
}

/** Opens the sound of a material; undefined where it has none. */
export type OpenSource = (material: Id) => Promise<Source | undefined>;

/** The sample nearest to an instant. */
export const sampleAt = (time: Ticks, rate: number): number =>
  Math.round((time * rate) / TICKS_PER_SECOND);

/** How long a piece of the mixdown is, in seconds. */
const PIECE = 1;

/** A sound read in order, from a sample of the programme on, at the rate of the mixdown. */
class Reader {
  readonly #pieces: AsyncIterator<StereoChunk>;
  #held: StereoChunk = [new Float32Array(0), new Float32Array(0)];
  #skip: number;

  /** @param skip  samples at the start that are not heard */
  constructor(source: Source, rate: number, skip: number) {
    this.#pieces = resampled(source, rate)[Symbol.asyncIterator]();
    this.#skip = skip;
  }

  /** The next samples; silence where the sound ends before. */
  async read(count: number): Promise<StereoChunk> {
    const out = [new Float32Array(count), new Float32Array(count)] as const;
    for (let filled = 0; filled < count;) {
      const length = this.#held[0].length;
      if (length > this.#skip) {
        const take = Math.min(length - this.#skip, count - filled);
        out.forEach((channel, side) =>
          channel.set(
            (this.#held[side] as Float32Array).subarray(this.#skip, this.#skip + take),
            filled,
          ),
        );
        filled += take;
        this.#skip += take;
        continue;
      }
      this.#skip -= length;
      const next = await this.#pieces.next();
      if (next.done) {
        this.#held = [new Float32Array(0), new Float32Array(0)];
        this.#skip = 0;
        break;
      }
      this.#held = next.value;
    }
    return out;
  }

  async close(): Promise<void> {
    await this.#pieces.return?.();
  }
}

async function* resampled(source: Source, rate: number): AsyncGenerator<StereoChunk> {
  if (source.sampleRate === rate) {
    for await (const channels of source.chunks()) yield toStereo(channels);
    return;
  }
  const left = new Resampler(source.sampleRate, rate);
  // One channel is the same on both sides.
  let right: Resampler | undefined;
  for await (const channels of source.chunks()) {
    const [one, other] = toStereo(channels);
    if (one !== other) right ??= new Resampler(source.sampleRate, rate);
    const made = left.push(one);
    yield [made, right?.push(other) ?? made];
  }
  const last = left.finish();
  yield [last, right?.finish() ?? last];
}

/** A sound of the mixdown, and between which of its samples it is heard. */
interface Part {
  readonly sound: Sound;
  readonly from: number;
  readonly to: number;
  readonly reader: Reader;
}

/** Adds samples of a sound as loud as it is there. */
function addTo(
  out: StereoChunk,
  first: number,
  samples: StereoChunk,
  at: number,
  part: Part,
  rate: number,
) {
  const { sound } = part;
  const { start, end } = stretchOf(sound);
  const timeOf = (sample: number) => ((sample * TICKS_PER_SECOND) / rate) as Ticks;
  const count = samples[0].length;
  const isFading = timeOf(at) < start + sound.fadeIn || timeOf(at + count) > end - sound.fadeOut;
  const level = 10 ** (sound.level / 20);
  for (let each = 0; each < count; each++) {
    const gain = isFading ? gainAt(sound, timeOf(at + each)) : level;
    for (const side of [0, 1] as const)
      out[side][at - first + each] =
        (out[side][at - first + each] as number) + (samples[side][each] as number) * gain;
  }
}

/** The keys of a recording, cut out of it at the rate of the mixdown; it is read up to its last stroke. */
async function keysOf(
  programme: Programme,
  material: Id,
  rate: number,
  open: OpenSource,
): Promise<Key[]> {
  const stretches = strokesOfMaterial(programme, material);
  const source = await open(material);
  if (!source) return [];
  const reader = new Reader(source, rate, 0);
  try {
    return cutKeys(
      await reader.read(Math.ceil((stretches.at(-1)?.end ?? 0) * rate)),
      stretches,
      rate,
    );
  } finally {
    await reader.close();
  }
}

interface Struck extends StruckKey {
  readonly key: Key;
}

/** The keys that are heard in a range, in the order in which they are struck. */
async function struckIn(
  programme: Programme,
  range: Range,
  rate: number,
  open: OpenSource,
): Promise<Struck[]> {
  const cut = new Map<Id, Key[]>();
  const struck: Struck[] = [];
  for (const { at, material, key, left, right, sounds } of laidKeys(programme, struckFor(range))) {
    const keys = cut.get(material) ?? (await keysOf(programme, material, rate, open));
    cut.set(material, keys);
    const own = keys[key];
    if (own)
      struck.push({
        key: own,
        at: sampleAt(at, rate),
        sounds: Math.round(sounds * rate),
        gains: [left, right],
      });
  }
  return struck;
}

/**
 * The mixdown of a range of a programme, in pieces of a second, however long it is: left and right, full scale ±1, not
 * limited. Each sound lies on the nearest sample; its gains are those that it is played with. Keys are struck at the
 * start of the frame of their letter.
 *
 * @param rate  of the mixdown, in samples a second
 */
export async function* mixdown(
  programme: Programme,
  range: Range,
  rate: number,
  open: OpenSource,
): AsyncGenerator<StereoChunk> {
  const [begin, end] = [sampleAt(range.start, rate), sampleAt(range.end, rate)];
  const parts: Part[] = [];
  try {
    for (const sound of soundsHeard(programme)) {
      const stretch = stretchOf(sound);
      const laid = sampleAt(stretch.start, rate);
      const from = Math.max(begin, laid);
      const to = Math.min(end, sampleAt(stretch.end, rate));
      const source = sound.muted || from >= to ? undefined : await open(sound.material);
      if (!source) continue;
      const skip = sampleAt(sound.from, rate) + from - laid;
      parts.push({ sound, from, to, reader: new Reader(source, rate, skip) });
    }
    const keys = await struckIn(programme, range, rate, open);
    for (let first = begin; first < end;) {
      const last = Math.min(end, first + PIECE * rate);
      const out = [new Float32Array(last - first), new Float32Array(last - first)] as const;
      for (const part of parts) {
        const [at, until] = [Math.max(first, part.from), Math.min(last, part.to)];
        if (at < until) addTo(out, first, await part.reader.read(until - at), at, part, rate);
      }
      for (const struck of keys)
        if (struck.at - struck.key.struck < last && struck.at + struck.sounds > first)
          addKey(out, first, struck.key, struck, rate);
      yield out;
      first = last;
    }
  } finally {
    for (const { reader } of parts) await reader.close();
  }
}
