/** Decodes short stretches of a sound for hearing it under the hand. */
import { expose, transfer } from 'comlink';
import { AudioSampleSink, Input, UrlSource, type InputAudioTrack } from 'mediabunny';
import { mix } from '@cadence/core/listen/signal/mix.ts';
import type { Stretch } from '@cadence/core/listen/grains.ts';
import { containers } from '@cadence/film/containers.ts';

const open = new Map<string, Promise<InputAudioTrack | null>>();

function trackOf(url: string): Promise<InputAudioTrack | null> {
  let track = open.get(url);
  if (!track) {
    const input = new Input({ source: new UrlSource(url), formats: containers });
    track = input.getPrimaryAudioTrack();
    open.set(url, track);
  }
  return track;
}

/** The mean of the channels from one second to another; undefined where nothing can be decoded. */
async function stretch(url: string, from: number, to: number): Promise<Stretch | undefined> {
  const track = await trackOf(url).catch(() => null);
  if (!track) return undefined;
  const rate = track.sampleRate;
  const samples = new Float32Array(Math.ceil((to - from) * rate));
  for await (const sample of new AudioSampleSink(track).samples(Math.max(0, from), to)) {
    const channels = Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
      const plane = new Float32Array(sample.numberOfFrames);
      sample.copyTo(plane, { planeIndex, format: 'f32-planar' });
      return plane;
    });
    const place = Math.round((sample.timestamp - from) * rate);
    sample.close();
    const mono = mix(channels);
    const skipped = Math.max(0, -place);
    const part = mono.subarray(skipped, skipped + Math.max(0, samples.length - place - skipped));
    samples.set(part, Math.max(0, place));
  }
  return transfer({ samples, rate, from }, [samples.buffer]);
}

const decoding = { stretch };
export type Decoding = typeof decoding;
expose(decoding);
