/** Weaves: gives words their times on a sound. What it heard of the last sound and its voice stays with it. */
import { expose, wrap, type Remote } from 'comlink';
import { Input, UrlSource } from 'mediabunny';
import { carrying, type Carried } from '@cadence/core/conform/carrying.ts';
import type { Range } from '@cadence/core/time/range.ts';
import type { WeaveHelper } from '@cadence/core/weave/helper.ts';
import { openWeaver, weavingFiles } from '@cadence/core/weave/openWeaver.ts';
import { VoiceListener } from '@cadence/core/weave/voiceListener.ts';
import type { Bands } from '@cadence/core/weave/cepstra.ts';
import type { Pin, Repeat, Tap, Woven } from '@cadence/core/weave/woven.ts';
import type { Weaver } from '@cadence/core/weave/weaver.ts';
import { containers } from '@cadence/film/containers.ts';
import { decoded } from '@cadence/film/decoded.ts';

/** Where a sound is, and how long, in seconds. */
export interface HeardSound {
  readonly url: string;
  readonly duration: number;
}

/** What is to be woven, in the sound's own time. */
export interface WeaveOrder extends HeardSound {
  readonly language: string;
  readonly words: readonly string[];
  readonly pins: readonly Pin[];
  readonly taps: readonly Tap[];
  readonly within: Range;
  readonly lines: readonly number[];
}

export type Doing =
  | 'Opening'
  | 'Listening'
  | 'Learning the room'
  | 'Weaving'
  | 'Looking for lines that are heard again'
  | 'Comparing';
export type OnProgress = (doing: Doing, share: number) => void;

async function bytesOf(name: string): Promise<Uint8Array> {
  const response = await fetch(`/acoustic/${name}`);
  if (!response.ok) throw new Error('The acoustic model is missing. Nothing was woven.');
  return new Uint8Array(await response.arrayBuffer());
}

let heard: { readonly url: string; readonly bands: Bands } | undefined;
let weaver: { readonly url: string; readonly language: string; readonly it: Weaver } | undefined;
let helper: Remote<WeaveHelper> | undefined;

/** The helper thread, with the model. */
async function openHelper(model: Uint8Array): Promise<Remote<WeaveHelper>> {
  if (helper) return helper;
  helper = wrap<WeaveHelper>(
    new Worker(new URL('./weaveHelper.worker.ts', import.meta.url), { type: 'module' }),
  );
  await helper.open(model);
  return helper;
}

async function bandsOf({ url, duration }: HeardSound, onProgress: OnProgress): Promise<Bands> {
  if (heard?.url === url) return heard.bands;
  const input = new Input({ source: new UrlSource(url), formats: containers });
  const track = await input.getPrimaryAudioTrack();
  if (!track) throw new Error('There is no sound in this file. Nothing was woven.');
  const listener = new VoiceListener(track.sampleRate);
  let samples = 0;
  let last = 0;
  for await (const channels of decoded(track)) {
    listener.push(channels);
    samples += channels[0]?.length ?? 0;
    const share = samples / track.sampleRate / Math.max(duration, 0.001);
    if (share - last > 0.02) onProgress('Listening', (last = share));
  }
  heard = { url, bands: listener.finish() };
  return heard.bands;
}

async function weaverOf(
  order: WeaveOrder,
  onProgress: OnProgress,
): Promise<{ weaver: Weaver; other: Remote<WeaveHelper> }> {
  const { url, language } = order;
  if (helper && weaver?.url === url && weaver.language === language)
    return { weaver: weaver.it, other: helper };
  onProgress('Opening', 0);
  const files = await weavingFiles(bytesOf);
  const opening = openHelper(files.model);
  const bands = await bandsOf(order, onProgress);
  const it = openWeaver(files, language);
  const other = await opening;
  await it.hear(bands, {
    helper: other,
    onProgress: (share) => onProgress('Learning the room', share),
  });
  weaver = { url, language, it };
  return { weaver: it, other };
}

const weaving = {
  /** @throws PinsCross */
  async weave(order: WeaveOrder, onProgress: OnProgress): Promise<Woven[]> {
    const { weaver: it, other } = await weaverOf(order, onProgress);
    return it.weave(order.words, {
      pins: order.pins,
      taps: order.taps,
      within: order.within,
      lines: order.lines,
      helper: other,
      onProgress: (share) => onProgress('Weaving', share),
    });
  },

  /** Lines that are heard again where nothing is written. @param woven  what came of this order */
  async repeats(
    order: WeaveOrder,
    woven: readonly Woven[],
    onProgress: OnProgress,
  ): Promise<Repeat[]> {
    const { weaver: it } = await weaverOf(order, onProgress);
    return it.repeats(order.words, woven, {
      within: order.within,
      lines: order.lines,
      onProgress: (share) => onProgress('Looking for lines that are heard again', share),
    });
  },

  /** What of one sound is where in another. */
  async compare(old: HeardSound, fresh: HeardSound, onProgress: OnProgress): Promise<Carried[]> {
    const bands = [];
    for (const sound of [old, fresh]) bands.push(await bandsOf(sound, onProgress));
    const [before, after] = bands as [Bands, Bands];
    onProgress('Comparing', 0);
    return carrying(before, after, (share) => {
      onProgress('Comparing', share);
    });
  },
};
export type WeavingWorker = typeof weaving;
expose(weaving);
