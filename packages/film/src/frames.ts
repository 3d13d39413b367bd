/** The exact frames of a film, decoded by WebCodecs: in a window, a worker or Node alike. */
import {
  Input,
  VideoSampleSink,
  type InputVideoTrack,
  type Source,
  type VideoSample,
} from 'mediabunny';
import { toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import type { FilmFrames, FramePlanes, Surfaces } from '@cadence/paint/stage.ts';
import { Colours, SAMPLINGS, usualMatrix, type Matrix, type Planes } from './colour.ts';
import { containers } from './containers.ts';

/** A film that cannot be opened or decoded, as a sentence. */
export class BrokenFilm extends Error {}

/** Further ahead than this, in seconds, it is decoded from the nearest key frame, not on from where it was. */
const NEAR = 1;

const MATRICES: Readonly<Record<string, Matrix>> = {
  bt709: 'bt709',
  bt470bg: 'bt601',
  smpte170m: 'bt601',
  'bt2020-ncl': 'bt2020',
};

/** @throws BrokenFilm where there is no picture in it that can be decoded here */
export async function openFilm(source: Source, surfaces: Surfaces): Promise<FilmFrames> {
  const input = new Input({ source, formats: containers });
  try {
    const track = await input.getPrimaryVideoTrack();
    if (!track) throw new BrokenFilm('There is no picture in this file.');
    if (!(await track.canDecode()))
      throw new BrokenFilm(
        `The picture is in ${track.codec ?? 'an unknown codec'}, which cannot be decoded here.`,
      );
    return new Frames(input, track, await matrixOf(track), await toleranceOf(track), surfaces);
  } catch (error) {
    input.dispose();
    throw error instanceof BrokenFilm
      ? error
      : new BrokenFilm('The film is damaged, or is in a format that cannot be read.');
  }
}

async function matrixOf(track: InputVideoTrack): Promise<Matrix> {
  const { matrix } = await track.getColorSpace();
  return MATRICES[matrix ?? ''] ?? usualMatrix(track.codedHeight);
}

/**
 * By how much a frame's time may be after the instant for which it is meant, in seconds: containers round times to
 * their own units, and WebCodecs to microseconds.
 */
async function toleranceOf(track: InputVideoTrack): Promise<number> {
  return 0.5 / (await track.getTimeResolution()) + 1e-6;
}

class Frames implements FilmFrames {
  readonly #input: Input;
  readonly #sink: VideoSampleSink;
  readonly #matrix: Matrix;
  readonly #tolerance: number;
  readonly #surfaces: Surfaces;
  readonly #colours = new Colours();
  #samples: AsyncGenerator<VideoSample, void, unknown> | undefined;
  /** The frame that was asked for last, and the one after it. */
  #now: VideoSample | undefined;
  #next: VideoSample | undefined;
  #room = new Uint8Array(0);
  #drawn: { readonly of: VideoSample; readonly picture: CanvasImageSource } | undefined;
  /** Frames are fetched one after the other. */
  #turn: Promise<unknown> = Promise.resolve();

  constructor(
    input: Input,
    track: InputVideoTrack,
    matrix: Matrix,
    tolerance: number,
    surfaces: Surfaces,
  ) {
    this.#input = input;
    this.#sink = new VideoSampleSink(track);
    this.#matrix = matrix;
    this.#tolerance = tolerance;
    this.#surfaces = surfaces;
  }

  frameAt(time: Ticks): Promise<CanvasImageSource | undefined> {
    return this.#inTurn(time, async (sample) => {
      if (this.#drawn?.of !== sample)
        this.#drawn = { of: sample, picture: await this.#draw(sample) };
      return this.#drawn.picture;
    });
  }

  planesAt(time: Ticks): Promise<FramePlanes | undefined> {
    return this.#inTurn(time, async (sample) => {
      const isTurned = sample.rotation !== 0 || sample.flip;
      return isTurned ? undefined : planesIn(sample, this.#matrix, this.#roomFor);
    });
  }

  /** Room for planes, the same as long as it is large enough: what the collector clears up it clears up late. */
  readonly #roomFor = (bytes: number): Uint8Array<ArrayBuffer> => {
    if (this.#room.length !== bytes) this.#room = new Uint8Array(bytes);
    return this.#room;
  };

  #inTurn<T>(
    time: Ticks,
    use: (sample: VideoSample) => Promise<T | undefined>,
  ): Promise<T | undefined> {
    const found = this.#turn.then(async () => {
      const sample = await this.#sampleAt(toSeconds(time) + this.#tolerance);
      return sample && use(sample);
    });
    this.#turn = found.catch(() => undefined);
    return found;
  }

  async #sampleAt(time: number): Promise<VideoSample | undefined> {
    const isNear = this.#now && this.#now.timestamp <= time && time < this.#now.timestamp + NEAR;
    if (!isNear) await this.#start(time);
    while (this.#next && this.#next.timestamp <= time) {
      this.#now?.close();
      this.#now = this.#next;
      this.#next = await this.#pull();
    }
    return this.#now;
  }

  /** Begins to decode with the frame shown at a time; before the first one, with that. */
  async #start(time: number): Promise<void> {
    await this.#stop();
    this.#samples = this.#sink.samples(time);
    this.#now = await this.#pull();
    this.#next = this.#now && (await this.#pull());
  }

  async #pull(): Promise<VideoSample | undefined> {
    const { value, done } = (await this.#samples?.next()) ?? { done: true, value: undefined };
    return done ? undefined : (value ?? undefined);
  }

  async #stop(): Promise<void> {
    this.#now?.close();
    this.#next?.close();
    [this.#now, this.#next, this.#drawn] = [undefined, undefined, undefined];
    await this.#samples?.return();
  }

  /** The picture of a frame, turned as the film says; its pixels may not be square. */
  async #draw(sample: VideoSample): Promise<CanvasImageSource> {
    const { pixels, width, height } = await this.#pixels(sample);
    const upright = this.#surfaces.fromPixels(pixels, width, height);
    const { rotation, flip } = sample;
    if (rotation === 0 && !flip) return upright;
    const turned = rotation % 180 !== 0;
    const [wide, high] = turned ? [height, width] : [width, height];
    const surface = this.#surfaces.make(wide, high);
    const context = surface.getContext('2d') as OffscreenCanvasRenderingContext2D;
    context.translate(wide / 2, high / 2);
    context.scale(flip ? -1 : 1, 1);
    context.rotate((rotation * Math.PI) / 180);
    context.drawImage(upright, -width / 2, -height / 2);
    return surface as CanvasImageSource;
  }

  async #pixels(
    sample: VideoSample,
  ): Promise<{ pixels: Uint8ClampedArray<ArrayBuffer>; width: number; height: number }> {
    const frame = sample.toVideoFrame();
    try {
      const { width, height } = frame.visibleRect ?? { width: 0, height: 0 };
      const sampling = SAMPLINGS.get(frame.format ?? '');
      if (!sampling) {
        // Red, green and blue already, or in a format that only the place itself knows.
        const pixels = new Uint8ClampedArray(4 * width * height);
        await frame.copyTo(pixels, { format: 'RGBA' });
        return { pixels, width, height };
      }
      const layout = await frame.copyTo(this.#colours.room(frame.allocationSize()));
      const fullRange = frame.colorSpace.fullRange === true;
      const planes: Planes = { layout, sampling, width, height, matrix: this.#matrix, fullRange };
      return { pixels: this.#colours.toRgba(planes), width, height };
    } finally {
      frame.close();
    }
  }

  async close(): Promise<void> {
    await this.#turn;
    await this.#stop();
    this.#input.dispose();
  }
}

/** The planes of a frame, where they are such as nearly all films have. */
async function planesIn(
  sample: VideoSample,
  matrix: Matrix,
  roomFor: (bytes: number) => Uint8Array<ArrayBuffer>,
): Promise<FramePlanes | undefined> {
  const frame = sample.toVideoFrame();
  try {
    const { width, height } = frame.visibleRect ?? { width: 0, height: 0 };
    const isUsual = frame.format === 'I420' && frame.colorSpace.fullRange !== true;
    if (!isUsual || width % 2 !== 0 || height % 2 !== 0) return undefined;
    const data = roomFor(frame.allocationSize());
    const layout = await frame.copyTo(data);
    const rows = [width, width / 2, width / 2];
    const isPacked = layout.every(({ stride }, at) => stride === rows[at]);
    return isPacked ? { data, width, height, matrix } : undefined;
  } finally {
    frame.close();
  }
}
