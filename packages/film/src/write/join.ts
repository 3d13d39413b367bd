/** Joins the parts of a film without encoding anything again, and reads what was written. */
import {
  EncodedAudioPacketSource,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  Input,
  MATROSKA,
  MP4,
  Mp4OutputFormat,
  Output,
  StreamTarget,
  TextSubtitleSource,
  WEBM,
  WebMOutputFormat,
  type Source,
} from 'mediabunny';
import { writeVtt } from '@cadence/core/formats/vtt/write.ts';
import { captionsOf } from '@cadence/core/programme/captions.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { frames } from '@cadence/core/time/frameRate.ts';
import { subtract, toSeconds } from '@cadence/core/time/ticks.ts';
import {
  frameCount,
  partsOf,
  SOUND_PART,
  SOUND_RATE,
  type AudioCodec,
  type FilmOrder,
} from './order.ts';
import { CannotWrite } from './easel.ts';
import { CODECS, complete } from './parts.ts';
import type { PartStore, Sink } from './store.ts';
import { renaming, withHeads } from './webVttTracks.ts';

const opened = async (store: PartStore, name: string): Promise<Input> =>
  new Input({ source: await store.source(name), formats: [MP4, WEBM, MATROSKA] });

/** The text of a subtitle track: the cues of a strand that are seen in the range, from its beginning. */
function trackText(programme: Programme, strand: string, { range, container }: FilmOrder): string {
  const captions = captionsOf(programme, strand)
    .filter(({ start, end }) => start < range.end && end > range.start)
    .map((caption) => ({
      ...caption,
      start: subtract(caption.start < range.start ? range.start : caption.start, range.start),
      end: subtract(caption.end > range.end ? range.end : caption.end, range.start),
    }));
  const { text } = writeVtt(captions);
  return container === 'webm' ? withHeads(text) : text;
}

/**
 * Joins all parts of a film.
 *
 * @param report  told how many frames are in it so far
 */
export async function joinParts(
  programme: Programme,
  order: FilmOrder,
  store: PartStore,
  sink: Sink,
  report: (frames: number) => void = () => undefined,
): Promise<void> {
  const { rate } = order;
  const sound = order.audio ? await opened(store, SOUND_PART) : undefined;
  const track = await sound?.getPrimaryAudioTrack();
  const packets = track ? await countOf(new EncodedPacketSink(track)) : 0;
  const format =
    order.container === 'mp4'
      ? new Mp4OutputFormat({ fastStart: 'reserve' })
      : new WebMOutputFormat();
  const hasTracks = order.container === 'webm' && order.tracks.length > 0;
  const target = new StreamTarget(hasTracks ? renaming(sink) : sink);
  const output = new Output({ format, target });
  const video = new EncodedVideoPacketSource(CODECS[order.video]);
  output.addVideoTrack(video, {
    frameRate: rate.num / rate.den,
    maximumPacketCount: frameCount(order),
  });
  const audio = order.audio && new EncodedAudioPacketSource(order.audio);
  if (audio) output.addAudioTrack(audio, { maximumPacketCount: packets });
  const tracks = order.tracks.map((strand) => {
    const text = trackText(programme, strand, order);
    const source = new TextSubtitleSource('webvtt');
    const cues = captionsOf(programme, strand).length;
    output.addSubtitleTrack(source, {
      name: programme.strands[strand]?.title ?? '',
      maximumPacketCount: 2 * cues + 2,
    });
    return { source, text };
  });
  output.setMetadataTags({ title: programme.facts.title });
  const fill = async () => {
    for (const { source, text } of tracks) {
      await source.add(text);
      source.close();
    }
    // Both go on side by side: the output takes from each what comes first.
    await Promise.all([
      joinPicture(order, store, video, report),
      track &&
        audio &&
        copySound(new EncodedPacketSink(track), audio, order.audio, await track.getDecoderConfig()),
    ]);
  };
  await complete(output, fill).finally(() => sound?.dispose());
}

async function countOf(sink: EncodedPacketSink): Promise<number> {
  let count = 0;
  for await (const _packet of sink.packets(undefined, undefined, { metadataOnly: true })) count++;
  return count;
}

/** Frames are at their places by their number, whatever a part's container made of their times. */
async function joinPicture(
  order: FilmOrder,
  store: PartStore,
  video: EncodedVideoPacketSource,
  report: (frames: number) => void,
): Promise<void> {
  const { rate } = order;
  const timeOf = (frame: number) => toSeconds(frames(frame, rate));
  const duration = timeOf(1);
  for (const part of partsOf(order)) {
    const input = await opened(store, part.name);
    const track = await input.getPrimaryVideoTrack();
    const decoderConfig = await track?.getDecoderConfig();
    if (!track || !decoderConfig) throw new CannotWrite('A part of the film is damaged.');
    for await (const packet of new EncodedPacketSink(track).packets()) {
      const frame = part.from + Math.round((packet.timestamp * rate.num) / rate.den);
      await video.add(packet.clone({ timestamp: timeOf(frame), duration }), { decoderConfig });
    }
    input.dispose();
    report(part.to);
  }
  video.close();
}

/**
 * Samples before the first that is heard, in the sound that encoders of AAC write; they say nothing of it. Opus says it
 * itself.
 */
const RUN_UP = 1024;
/** Samples of a packet of AAC. */
const AAC_PACKET = 1024;

/** Packets of AAC follow each other without gaps, whatever an encoder says of the last one. */
async function copySound(
  sink: EncodedPacketSink,
  audio: EncodedAudioPacketSource,
  codec: AudioCodec,
  decoderConfig: AudioDecoderConfig | null,
): Promise<void> {
  let count = 0;
  for await (const packet of sink.packets()) {
    const timestamp = (AAC_PACKET * count - RUN_UP) / SOUND_RATE;
    const placed =
      codec === 'aac' ? packet.clone({ timestamp, duration: AAC_PACKET / SOUND_RATE }) : packet;
    await audio.add(placed, decoderConfig ? { decoderConfig } : undefined);
    count++;
  }
  audio.close();
}

/** What is wrong with a film that was written, as sentences; none if it is as it should be. */
export async function faultsOf(source: Source, order: FilmOrder): Promise<string[]> {
  const input = new Input({ source, formats: [MP4, WEBM, MATROSKA] });
  const faults: string[] = [];
  try {
    const wanted = frameCount(order);
    const length = toSeconds(frames(1, order.rate));
    const video = await input.getPrimaryVideoTrack();
    if (!video) return ['There is no picture in it.'];
    const places = new Set<number>();
    for await (const packet of new EncodedPacketSink(video).packets(undefined, undefined, {
      metadataOnly: true,
    }))
      places.add(Math.round(packet.timestamp / length));
    if (places.size !== wanted || Math.max(...places) !== wanted - 1)
      faults.push(`It has ${places.size} frames, not ${wanted}.`);
    const audio = await input.getPrimaryAudioTrack();
    if (order.audio && !audio) faults.push('There is no sound in it.');
    if (order.audio && audio) {
      const [end, whole] = [await audio.computeDuration(), wanted * length];
      if (end < whole - length) faults.push(`Its sound ends ${(whole - end).toFixed(2)} s early.`);
    }
  } catch {
    faults.push('It cannot be read.');
  } finally {
    input.dispose();
  }
  return faults;
}
