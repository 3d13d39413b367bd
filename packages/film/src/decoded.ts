/** The sound of a track, decoded piece by piece, each where its timestamp says. */
import { AudioSampleSink, type InputAudioTrack } from 'mediabunny';

/**
 * One array a channel; breaks off with the decoder's error where the file is damaged.
 *
 * @param start  where the first piece lies at the latest, in seconds, whatever its decoder says
 */
export async function* decoded(
  track: InputAudioTrack,
  start = Infinity,
): AsyncGenerator<Float32Array[]> {
  let samples = 0;
  let latest = start;
  for await (const sample of new AudioSampleSink(track).samples()) {
    const channels = Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
      const plane = new Float32Array(sample.numberOfFrames);
      sample.copyTo(plane, { planeIndex, format: 'f32-planar' });
      return plane;
    });
    const place = Math.round(Math.min(sample.timestamp, latest) * track.sampleRate);
    latest = Infinity;
    sample.close();
    const fitted = placed(channels, place - samples);
    samples += fitted[0]?.length ?? 0;
    yield fitted;
  }
}

/**
 * Sound put where its timestamp says: after silence where there is a hole of more than 1 ms, cut where
 * it lies before what was heard already (the first samples of some codecs are a run-up).
 */
function placed(channels: Float32Array[], ahead: number): Float32Array[] {
  const length = channels[0]?.length ?? 0;
  if (ahead < 0) return channels.map((channel) => channel.subarray(Math.min(length, -ahead)));
  if (ahead < 48) return channels;
  return channels.map((channel) => {
    const padded = new Float32Array(ahead + length);
    padded.set(channel, ahead);
    return padded;
  });
}
