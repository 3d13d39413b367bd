/** WebCodecs on Node: the classes that browsers have, for what decodes and encodes by them. */

/** The names under which WebCodecs are known; one of them is not there on Node, nor in browsers' workers. */
const CLASSES = [
  'AudioData',
  'AudioDecoder',
  'AudioEncoder',
  'EncodedAudioChunk',
  'EncodedVideoChunk',
  'VideoColorSpace',
  'VideoDecoder',
  'VideoEncoder',
  'VideoFrame',
] as const;

/** What a codec tells what it made, and what went wrong. */
interface Told {
  output: ((...made: unknown[]) => void) | undefined;
  error: ((error: unknown) => void) | undefined;
}

type Codec = new (told: Told) => { close(): void };

/**
 * A codec that lets go of who listens to it when it is closed. As it is, it holds them for ever; they hold it in turn,
 * and all the frames that it has room for stay.
 */
function lettingGo(Native: Codec): Codec {
  return class extends Native {
    readonly #told: Told;

    constructor({ output, error }: Told) {
      const told: Told = { output, error };
      super({
        output: (...made) => {
          if (told.output) told.output(...made);
          else for (const each of made) (each as { close?: () => void } | undefined)?.close?.();
        },
        error: (wrong) => told.error?.(wrong),
      });
      this.#told = told;
    }

    override close(): void {
      super.close();
      this.#told.output = undefined;
      this.#told.error = undefined;
    }
  };
}

type Sound = new (init: { readonly data: BufferSource }) => object;

/** Sound data that is given as a view of its bytes, whatever was given: bytes without a view would be kept for ever. */
const ofViews = (Native: Sound): Sound =>
  new Proxy(Native, {
    construct: (_, [init]: [{ readonly data: BufferSource }]) => {
      const { data } = init;
      return new Native({ ...init, data: ArrayBuffer.isView(data) ? data : new Uint8Array(data) });
    },
  });

let here: Promise<void> | undefined;

/** Makes WebCodecs known to all of this thread; loads their binary once. */
export function withCodecs(): Promise<void> {
  here ??= import('@napi-rs/webcodecs').then((codecs) => {
    const value = (name: (typeof CLASSES)[number]): unknown => {
      if (name === 'AudioData') return ofViews(codecs.AudioData as unknown as Sound);
      return /coder$/.test(name) ? lettingGo(codecs[name] as unknown as Codec) : codecs[name];
    };
    for (const name of CLASSES)
      Object.defineProperty(globalThis, name, { value: value(name), configurable: true });
  });
  return here;
}

/** The longest timer. */
const LONG = 2 ** 31 - 1;

/** Does work that waits for codecs, whose callbacks alone would not keep the process alive. */
export async function keptAlive<T>(work: () => Promise<T>): Promise<T> {
  const timer = setInterval(() => undefined, LONG);
  try {
    return await work();
  } finally {
    clearInterval(timer);
  }
}
