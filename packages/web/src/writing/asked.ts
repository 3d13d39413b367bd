/** What the editor's choices in Handover ask for: films, pictures and sounds to be written. */
import { isHeard } from '@cadence/core/mix/keySounds.ts';
import { cueOf } from '@cadence/core/programme/edits/programme/passages.ts';
import { cuesInOrder, marksInOrder, strandsShown } from '@cadence/core/programme/order.ts';
import type { Cue, Id, Programme } from '@cadence/core/programme/programme.ts';
import { NOTHING, PICTURE } from '@cadence/core/scene/sceneAt.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { frameBefore, nearestFrame } from '@cadence/core/time/frameRate.ts';
import type { Range } from '@cadence/core/time/range.ts';
import {
  add,
  earlier,
  fromSeconds,
  later,
  subtract,
  ZERO,
  type Ticks,
} from '@cadence/core/time/ticks.ts';
import { formatTimecode, parseTypedTime } from '@cadence/core/time/timecode.ts';
import {
  halved,
  sizeWith,
  type AudioCodec,
  type Container,
  type FilmOrder,
  type Still,
  type VideoCodec,
  type Writing,
} from '@cadence/film/write/order.ts';
import type { Writable } from './writable.ts';
import { passageInHand } from '../desk/passageInHand.ts';
import type { LeavingKind, Leaves, View } from '../desk/view.ts';

/** What is shown before a passage, and after it. */
const AROUND = fromSeconds(2);

/** Container and codec of a film. */
export const FILM_FORMATS = [
  { value: 'mp4 h264', label: 'MP4, H.264' },
  { value: 'mp4 av1', label: 'MP4, AV1' },
  { value: 'webm vp9', label: 'WebM, VP9' },
  { value: 'webm av1', label: 'WebM, AV1' },
] as const;

const CODEC_NAMES: Readonly<Record<VideoCodec, string>> = {
  h264: 'H.264',
  vp9: 'VP9',
  av1: 'AV1',
};

export const codecsOf = (format: string): { container: Container; video: VideoCodec } => {
  const [container, video] = format.split(' ') as [Container, VideoCodec];
  return { container, video };
};

/** A range that is asked for, on frames of the programme; a sentence where there is none. */
export function rangeAsked(
  programme: Programme,
  { range, from, to }: Pick<Leaves, 'range' | 'from' | 'to'>,
  { selection, passage }: Pick<View, 'selection' | 'passage'>,
): Range | string {
  const { frameRate, startTimecode, length } = programme.facts;
  const onFrames = (from: Ticks, to: Ticks): Range | string => {
    const start = nearestFrame(later(ZERO, from), frameRate);
    const end = nearestFrame(earlier(length, to), frameRate);
    return end > start ? { start, end } : 'There is not a whole frame in this range.';
  };
  switch (range) {
    case 'all':
      return onFrames(ZERO, length);
    case 'selection': {
      const cues = selection.flatMap((id) => programme.cues[id] ?? []);
      if (cues.length === 0) return 'No cue is selected.';
      return onFrames(
        cues.map(({ start }) => start).reduce(earlier),
        cues.map(({ end }) => end).reduce(later),
      );
    }
    case 'passage': {
      const inHand = passageInHand(programme, { passage });
      const cue = inHand && cueOf(programme, inHand.id);
      if (!cue) return 'The roll or crawl in hand is not on the programme.';
      return onFrames(subtract(cue.start, AROUND), add(cue.end, AROUND));
    }
    case 'typed': {
      const [start, end] = [from, to].map((text) => parseTypedTime(text, frameRate, startTimecode));
      const example = formatTimecode(startTimecode, frameRate);
      if (start === undefined || end === undefined) return `Write two times, such as ${example}.`;
      if (start < 0 || end > length) return 'This range is outside the programme.';
      if (end <= start) return 'The second time must come after the first.';
      return onFrames(start, end);
    }
  }
}

/** The film that is asked for. */
export function filmAsked(
  programme: Programme,
  leaves: Leaves,
  range: Range,
  audio: AudioCodec,
): FilmOrder {
  const { frame, frameRate } = programme.facts;
  const { container, video } = codecsOf(leaves.format);
  return {
    container,
    video,
    audio: isHeard(programme) ? (container === 'webm' ? 'opus' : audio) : undefined,
    ...sizeWith(frame, leaves.lines ?? frame.height),
    rate: leaves.half ? halved(frameRate) : frameRate,
    quality: leaves.quality,
    range,
    on: PICTURE,
    loudness: leaves.loudness ?? undefined,
    tracks: leaves.tracks.filter((id) => id in programme.strands),
  };
}

/** The same with its text alone, and no sound. */
export function textAsked(programme: Programme, leaves: Leaves, range: Range): FilmOrder {
  const film = filmAsked(programme, { ...leaves, tracks: [] }, range, 'opus');
  const { text, colour } = leaves;
  if (text === 'colour') return { ...film, audio: undefined, on: colour };
  return {
    ...film,
    audio: undefined,
    on: NOTHING,
    container: text,
    video: 'vp9',
  };
}

/** A name for a still that says what is on it. */
const namedBy = (at: Ticks, text: string, { facts }: Programme): string => {
  const code = formatTimecode(add(at, facts.startTimecode), facts.frameRate).replace(/\D/g, '-');
  const words = text
    .replace(/[^\p{L}\p{N} ]/gu, '')
    .trim()
    .split(/\s+/)
    .slice(0, 4)
    .join('-')
    .toLowerCase();
  return words ? `${code}-${words}` : code;
};

/** The instants of which stills are asked for: of a cue its middle, when all of it is there. */
export function stillsAsked(
  programme: Programme,
  { stills }: Leaves,
  strand: Id,
  now: Ticks,
): Still[] {
  const { frameRate } = programme.facts;
  if (stills === 'frame') return [{ at: now, name: namedBy(now, '', programme) }];
  if (stills === 'marks')
    return marksInOrder(programme).map(({ at, name }) => ({
      at,
      name: namedBy(at, name, programme),
    }));
  const shown = strandsShown(programme).some(({ id }) => id === strand);
  return (shown ? cuesInOrder(programme, strand) : []).map((cue: Cue) => {
    const middle = frameBefore(((cue.start + cue.end) / 2) as Ticks, frameRate);
    return { at: middle, name: namedBy(cue.start, plainText(cue.text), programme) };
  });
}

/**
 * Why what is asked for cannot be written, as a sentence; undefined if it can.
 *
 * @param can  what this browser can write; undefined until it was asked
 */
export function whyNot(
  programme: Programme,
  leaves: Leaves,
  range: Range | string,
  strand: Id,
  can?: Writable,
): string | undefined {
  const { kinds } = leaves;
  const isRanged = kinds.some((kind) => kind !== 'stills');
  if (isRanged && typeof range === 'string') return range;
  if (kinds.includes('stills') && stillsAsked(programme, leaves, strand, ZERO).length === 0)
    return leaves.stills === 'marks'
      ? 'There are no marks to take stills of.'
      : 'There are no cues to take stills of.';
  if (kinds.includes('sound') && !isHeard(programme)) return 'No sound is heard in this programme.';
  if (leaves.where === 'server')
    return kinds.includes('text') && leaves.text === 'webm'
      ? 'The server writes see-through text as PNG pictures, not as WebM. This browser can.'
      : undefined;
  const codecs = [
    ...(kinds.includes('film') ? [codecsOf(leaves.format).video] : []),
    ...(kinds.includes('text') && leaves.text === 'webm' ? ['vp9' as const] : []),
  ];
  const lacking = can && codecs.find((codec) => !can.codecs.includes(codec));
  return (
    lacking && `This browser cannot write ${CODEC_NAMES[lacking]} in this size. The server can.`
  );
}

/** All that is asked for beside captions. */
export function writingsAsked(
  programme: Programme,
  leaves: Leaves,
  { range, audio, strand, now }: { range: Range; audio: AudioCodec; strand: Id; now: Ticks },
): { readonly of: LeavingKind; readonly writing: Writing }[] {
  const { frame } = programme.facts;
  const writings: { readonly of: LeavingKind; readonly writing: Writing }[] = [];
  const ask = (of: LeavingKind, writing: Writing) => writings.push({ of, writing });
  const { kinds } = leaves;
  if (kinds.includes('film'))
    ask('film', { kind: 'film', order: filmAsked(programme, leaves, range, audio) });
  if (kinds.includes('text'))
    ask('text', { kind: 'film', order: textAsked(programme, leaves, range) });
  if (kinds.includes('stills'))
    ask('stills', {
      kind: 'stills',
      order: {
        stills: stillsAsked(programme, leaves, strand, now),
        ...sizeWith(frame, leaves.lines ?? frame.height),
        on: leaves.stillsAlone ? NOTHING : PICTURE,
      },
    });
  if (kinds.includes('sound'))
    ask('sound', {
      kind: 'sound',
      order: { range, bits: leaves.bits, loudness: leaves.loudness ?? undefined },
    });
  return writings;
}
