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

let here: Promise<void> | undefined;

/** Makes WebCodecs known to all of this thread; loads their binary once. */
export function withCodecs(): Promise<void> {
  here ??= import('@napi-rs/webcodecs').then((codecs) => {
    for (const name of CLASSES)
      Object.defineProperty(globalThis, name, { value: codecs[name], configurable: true });
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
