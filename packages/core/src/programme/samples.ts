/** Small programmes for tests and benchmarks. */
import { linesOf } from '../text/lines.ts';
import { frames } from '../time/frameRate.ts';
import { fromSeconds, ticks, type Ticks } from '../time/ticks.ts';
import { DEFAULT_FRAME_RATE, newProgramme } from './defaults.ts';
import type { Cue, Material, Programme } from './programme.ts';

export const at25 = (count: number): Ticks => frames(count, DEFAULT_FRAME_RATE);

/** Ids in order: `id1`, `id2` … */
export function countingIds(prefix = 'id'): () => string {
  let count = 0;
  return () => `${prefix}${++count}`;
}

/** A programme at 25 frames a second whose cues stand at the given frames; their ids are c1, c2 … */
export function programmeWithCues(
  cues: readonly (readonly [text: string, start: number, end: number])[],
): Programme {
  const made = cues.map(([text, start, end], place): Cue => ({
    id: `c${place + 1}`,
    strand: 's',
    start: at25(start),
    end: at25(end),
    text: linesOf(text),
    style: {},
    words: [],
  }));
  return {
    ...newProgramme('p', 'The Ferry at Skerrymoor', 's'),
    cues: Object.fromEntries(made.map((cue) => [cue.id, cue])),
  };
}

/** A sound of an hour that was brought in. */
export const sampleMaterial = (id: string): Material => ({
  id,
  hash: '0'.repeat(64),
  name: `${id}.wav`,
  kind: 'sound',
  bytes: 1,
  length: fromSeconds(3600),
  sound: { sampleRate: 48_000, channels: 1, codec: 'pcm-s16' },
  picture: null,
  family: null,
  remarks: [],
});

/** The same with pieces of speech, in seconds, in a material that is the programme's sound. */
export function programmeWithPieces(
  pieces: readonly (readonly [start: number, end: number])[],
): Programme {
  const empty = programmeWithCues([]);
  return {
    ...empty,
    facts: { ...empty.facts, sound: 'm' },
    materials: { m: sampleMaterial('m') },
    pieces: Object.fromEntries(
      pieces.map(([start, end], place) => [
        `k${place}`,
        { id: `k${place}`, material: 'm', start: fromSeconds(start), end: fromSeconds(end) },
      ]),
    ),
  };
}

const phrases = [
  'Every morning at a quarter to six',
  'the ferry wakes before the village does.',
  'You hear the winch first,',
  'then the gulls complaining about the winch.',
  'The chain has lain in the mud\nsince the winter before last.',
];

/** A long programme: `count` cues, one a second, each 0.92 s long. */
export function longProgramme(count: number): Programme {
  const programme = programmeWithCues(
    Array.from({ length: count }, (_, place) => {
      const phrase = phrases[place % phrases.length] as string;
      return [`${phrase} (${place + 1})`, place * 25, place * 25 + 23] as const;
    }),
  );
  return { ...programme, facts: { ...programme.facts, length: ticks(at25(count * 25)) } };
}
