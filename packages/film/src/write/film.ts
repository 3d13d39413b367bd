/** Writing a film in parts: what there is to do, and each piece of it. */
import { levelled, measured, type Levelled, type Watch } from '@cadence/core/mix/levelled.ts';
import { loudnessGain } from '@cadence/core/mix/loudnessGain.ts';
import { mixdown, type OpenSource } from '@cadence/core/mix/mixdown.ts';
import { wavOf, WAV_RATE, type WavOrder } from '@cadence/core/mix/wavOf.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { subtract, toSeconds } from '@cadence/core/time/ticks.ts';
import { SOUND_PART, SOUND_RATE, type FilmOrder, type Part } from './order.ts';
import type { Drawn, Easel } from './easel.ts';
import { writePart, writeSound } from './parts.ts';
import { joinParts } from './join.ts';
import { joinPictures, writePictures } from './pictures.ts';
import { writeAll, type PartStore, type Sink } from './store.ts';

/** A film that is being written, where it is written. */
export interface Job {
  readonly programme: Programme;
  readonly order: FilmOrder;
  readonly store: PartStore;
  readonly easel: Easel;
  readonly open: OpenSource;
}

/** Writes a part, unless it is there. */
export async function makePart(
  { programme, order, store, easel }: Job,
  part: Part,
  drawn?: Drawn,
): Promise<void> {
  if (await store.has(part.name)) return;
  await easel.stage.fonts(programme);
  const write = order.container === 'zip' ? writePictures : writePart;
  await store.put(part.name, (sink) => write(programme, order, part, easel, sink, drawn));
}

/** Counts samples as they pass. @param whole  how many come in all passes */
function watched(whole: number, report: (share: number) => void): Watch {
  let samples = 0;
  return async function* (pieces) {
    for await (const piece of pieces) {
      samples += piece[0].length;
      report(Math.min(1, samples / whole));
      yield piece;
    }
  };
}

/** What is known of the sound of a film. */
export type SoundFound = Pick<Levelled, 'level' | 'gain' | 'isHeldBack'>;

/** What is told of a mixdown: little, whatever else was measured. */
const foundOf = ({ level, gain, isHeldBack }: SoundFound): SoundFound => ({
  level: { integratedLufs: level.integratedLufs, truePeakDb: level.truePeakDb },
  gain,
  isHeldBack,
});

/**
 * Writes the sound, unless it is there.
 *
 * @param report  told which share of it is done
 * @returns what was found; undefined where it was there
 */
export async function makeSound(
  { programme, order, store, open }: Job,
  report: (share: number) => void = () => undefined,
): Promise<SoundFound | undefined> {
  const { audio, range, loudness } = order;
  if (!audio || (await store.has(SOUND_PART))) return undefined;
  const passes = loudness === undefined ? 1 : 2;
  const samples = toSeconds(subtract(range.end, range.start)) * SOUND_RATE;
  const watch = watched(passes * samples, report);
  if (loudness === undefined) {
    const mix = measured(watch(mixdown(programme, range, SOUND_RATE, open), 'writing'), SOUND_RATE);
    await store.put(SOUND_PART, (sink) => writeSound(mix, audio, sink));
    const level = mix.level();
    // What is over full scale is written again, quieter.
    if (loudnessGain(level).gain === 0) return foundOf({ level, gain: 0, isHeldBack: false });
  }
  const mix = await levelled(programme, range, SOUND_RATE, open, loudness, watch);
  await store.put(SOUND_PART, (sink) => writeSound(mix, audio, sink));
  return foundOf(mix);
}

/**
 * Writes the mixdown as a WAVE file.
 *
 * @param report  told which share of it is done
 */
export async function writeWav(
  programme: Programme,
  order: WavOrder,
  open: OpenSource,
  sink: Sink,
  report: (share: number) => void = () => undefined,
): Promise<SoundFound> {
  const { start, end } = order.range;
  const whole = 2 * WAV_RATE * toSeconds(subtract(end, start));
  const wav = await wavOf(programme, order, open, watched(whole, report));
  await writeAll(sink, wav.content());
  return foundOf(wav);
}

/** Joins the parts into the film. */
export function join(
  { programme, order, store }: Pick<Job, 'programme' | 'order' | 'store'>,
  sink: Sink,
  report?: (frames: number) => void,
): Promise<void> {
  const joined = order.container === 'zip' ? joinPictures : joinParts;
  return joined(programme, order, store, sink, report);
}
