/** `film`: a programme with its text and its sound as a film, or as pictures. */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { isHeard } from '@cadence/core/mix/keySounds.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { NOTHING, PICTURE } from '@cadence/core/scene/sceneAt.ts';
import { nameRate, nearestFrame, parseRate, type FrameRate } from '@cadence/core/time/frameRate.ts';
import { toSeconds, subtract } from '@cadence/core/time/ticks.ts';
import {
  CONTAINERS,
  frameCount,
  halved,
  sizeWith,
  type Container,
  type FilmOrder,
  type VideoCodec,
} from '@cadence/film/write/order.ts';
import { writeFilm } from '@cadence/node/film.ts';
import { Unusable } from '@cadence/node/unusable.ts';
import { rangeOf, targetOf } from './asked.ts';
import { WrongUsage } from './failure.ts';
import { pathOf } from './files.ts';
import { rounded, soundJson } from './output.ts';
import { folderOf, readProgramme } from './programmeFile.ts';
import { Share } from './progress.ts';

interface FilmOptions {
  readonly material?: string | undefined;
  readonly range?: string | undefined;
  readonly size?: string | undefined;
  readonly rate?: string | undefined;
  readonly codec?: string | undefined;
  readonly 'text-only'?: string | undefined;
  readonly loudness?: string | undefined;
}

/** Codecs that a container holds, the usual one first. */
const CODECS: Readonly<Record<Container, readonly VideoCodec[]>> = {
  mp4: ['h264', 'vp9', 'av1'],
  webm: ['vp9', 'av1'],
  zip: ['h264'],
};

/** The most lines of a film. */
const MOST_LINES = 4320;

function containerOf(out: string): Container {
  const ending = extname(out).slice(1).toLowerCase();
  const container = CONTAINERS.find((each) => each === ending);
  if (!container)
    throw new WrongUsage(
      `A film is written as ${CONTAINERS.map((each) => `.${each}`).join(', ')}.`,
    );
  return container;
}

function codecOf(container: Container, asked: string | undefined): VideoCodec {
  const codecs = CODECS[container];
  if (asked === undefined) return codecs[0] as VideoCodec;
  if (container === 'zip') throw new WrongUsage('--codec goes with a film, not with pictures.');
  const codec = codecs.find((each) => each === asked);
  if (!codec) throw new WrongUsage(`.${container} takes --codec ${codecs.join(', ')}.`);
  return codec;
}

function linesOf(asked: string | undefined, height: number): number {
  const lines = asked === undefined ? height : Number(asked);
  if (!Number.isInteger(lines) || lines < 16 || lines > MOST_LINES)
    throw new WrongUsage(`--size takes a height from 16 to ${MOST_LINES} pixels, such as 1080.`);
  return lines;
}

function rateOf(asked: string | undefined, own: FrameRate): FrameRate {
  if (asked === undefined) return own;
  const half = halved(own);
  const rate = parseRate(asked);
  const value = rate ? rate.num / rate.den : Number(asked);
  // Rates such as 29.97 are named by what they are rounded to.
  const wanted = [own, half].find(({ num, den }) => Math.abs(num / den / value - 1) < 0.0006);
  if (!wanted)
    throw new WrongUsage(
      `--rate takes that of the programme, ${own.num}/${own.den}, or its half, ${half.num}/${half.den}.`,
    );
  return wanted;
}

/** @throws WrongUsage where the options do not go together */
export function orderOf(programme: Programme, out: string, options: FilmOptions): FilmOrder {
  const { frame, frameRate } = programme.facts;
  const container = containerOf(out);
  const video = codecOf(container, options.codec);
  const textOnly = options['text-only'] !== undefined;
  if (textOnly && container !== 'zip')
    throw new WrongUsage(
      'See-through text is written here as pictures: name the file .zip. The application writes it as WebM too.',
    );
  const asked = rangeOf(programme, options.range);
  const range = {
    start: nearestFrame(asked.start, frameRate),
    end: nearestFrame(asked.end, frameRate),
  };
  if (range.end <= range.start)
    throw new WrongUsage('There is not a whole frame in this range. Nothing was written.');
  const hasSound = container !== 'zip' && isHeard(programme);
  return {
    container,
    video,
    audio: hasSound ? (container === 'mp4' ? 'aac' : 'opus') : undefined,
    ...sizeWith(frame, linesOf(options.size, frame.height)),
    rate: rateOf(options.rate, frameRate),
    quality: 'good',
    range,
    on: textOnly ? NOTHING : PICTURE,
    loudness: targetOf(options.loudness),
    tracks: [],
  };
}

/** The JSON of `film`. */
export async function filmCommand(
  name: string,
  out: string,
  options: FilmOptions,
): Promise<object> {
  const began = performance.now();
  const programme = await readProgramme(name);
  const order = orderOf(programme, out, options);
  const parts = await mkdtemp(join(tmpdir(), 'cadence-film-'));
  const progress = new Share();
  try {
    const material = folderOf(name, options.material);
    const { sound, faults } = await writeFilm(
      { programme, order, material, parts },
      pathOf(out),
      ({ doing, share }) => progress.tell(doing === 'writing' ? 'Writing' : 'Joining', share),
    );
    if (faults.length > 0) throw new Unusable('faulty', faults.join(' '), out);
    return {
      file: out,
      frames: frameCount(order),
      width: order.width,
      height: order.height,
      rate: nameRate(order.rate),
      duration: toSeconds(subtract(order.range.end, order.range.start)),
      sound: sound ? soundJson(sound.level) : null,
      ...(sound?.isHeldBack && { heldBackByPeaks: true }),
      tookSeconds: rounded((performance.now() - began) / 1000),
    };
  } catch (error) {
    if (error instanceof Unusable || error instanceof WrongUsage) throw error;
    throw new Unusable('film', error instanceof Error ? error.message : String(error), out);
  } finally {
    await rm(parts, { recursive: true, force: true });
  }
}
