/** "Slack Water": an original song of the demo, as notes. Three beats in a bar, after an upbeat. */

export const TEMPO = 104;
export const BEATS = 3;
/** The first bar begins after this many beats. */
export const UPBEAT = 1;

export interface Note {
  /** In beats from the start of the song, and how long. */
  readonly at: number;
  readonly length: number;
  readonly channel: number;
  readonly pitch: number;
  readonly velocity: number;
}

/** General MIDI programs of the channels: guitar, bass, strings; 9 is drums. */
export const PROGRAMS: Readonly<Record<number, number>> = { 0: 25, 1: 33, 3: 49 };

/** The words, one line every four bars. */
export const LINES = [
  'Slack water, hold the chain,',
  'the tide forgets which way it came.',
  'Slack water, wait for me,',
  'the far bank is as far as we can see.',
];

/** Roots of the bars, in semitones from D, and whether the chord is minor. */
const CHORDS: readonly (readonly [root: number, minor: boolean])[] = [
  [0, false],
  [0, false],
  [5, false],
  [0, false],
  [9, true],
  [5, false],
  [7, false],
  [7, false],
];
const D = 50;

/** The tune with words: for each line its notes from its first bar on, a syllable each, or slurred to the one before. */
type SungNote = readonly [pitch: number, at: number, length: number, slur?: true];
const SLACK_WATER: readonly SungNote[] = [
  [19, 0, 2],
  [16, 2, 1],
  [14, 3, 1.5],
  [16, 4.5, 0.5, true],
  [12, 5, 1, true],
  [17, 6, 2],
  [21, 8, 1],
  [19, 9, 2.3],
];
const SUNG: readonly (readonly SungNote[])[] = [
  SLACK_WATER,
  [
    [19, -0.5, 0.5],
    [21, 0, 1],
    [19, 1, 1, true],
    [16, 2, 1],
    [17, 3, 2],
    [14, 5, 1],
    [14, 6, 1],
    [16, 7, 1, true],
    [17, 8, 1],
    [14, 9, 2],
  ],
  SLACK_WATER,
  [
    [19, -0.5, 0.5],
    [21, 0, 1],
    [19, 1, 1],
    [16, 2, 1],
    [17, 3, 1],
    [17, 4, 1],
    [14, 5, 1],
    [14, 6, 1],
    [16, 7, 1],
    [17, 8, 1, true],
    [14, 9, 2],
  ],
];

/** A line that is sung, its notes in seconds and hertz. */
export interface SungLine {
  readonly line: number;
  readonly notes: readonly {
    readonly at: number;
    readonly length: number;
    readonly hertz: number;
    readonly slur: boolean;
  }[];
}

/** Four bars each, after a round of guitar and bass. */
export const sungLines = (): SungLine[] =>
  SUNG.map((own, line) => ({
    line,
    notes: own.map(([pitch, at, length, slur = false]) => ({
      at: ((UPBEAT + (8 + 4 * line) * BEATS + at) * 60) / TEMPO,
      length: (length * 60) / TEMPO,
      hertz: 440 * 2 ** ((D - 24 + pitch - 69) / 12),
      slur,
    })),
  }));

const ROUNDS = 3;

/** All notes of the song. */
export function notes(): Note[] {
  const all: Note[] = [];
  const put = (channel: number, at: number, length: number, pitch: number, velocity: number) =>
    all.push({ at, length, channel, pitch, velocity });
  put(0, 0, 0.9, D + 14, 62);
  for (let bar = 0; bar < 8 * ROUNDS; bar++) {
    const from = UPBEAT + bar * BEATS;
    const [root, minor] = CHORDS[bar % 8] ?? [0, false];
    const chord = [0, minor ? 3 : 4, 7].map((step) => D + root + step);
    const round = Math.floor(bar / 8);
    put(1, from, 2.8, D - 12 + root, 88);
    // The guitar: the root, then the others of the chord in even quavers.
    [0, 2, 1, 2, 1, 2].forEach((voice, quaver) =>
      put(0, from + quaver / 2, 0.6, (chord[voice] ?? D) + (voice ? 12 : 0), quaver ? 58 : 84),
    );
    if (round > 0) chord.forEach((pitch) => put(3, from, 2.9, pitch + 12, 46));
    put(9, from, 0.2, 36, 92);
    put(9, from + 1, 0.2, 42, 52);
    put(9, from + 2, 0.2, 42, 52);
    if (round > 0) put(9, from + 1, 0.2, 37, 62);
    if (round > 0) put(9, from + 2, 0.2, 37, 56);
    if (bar % 8 === 7) put(9, from + 2.5, 0.2, 45, 70);
  }
  const end = UPBEAT + 8 * ROUNDS * BEATS;
  [D - 12, D, D + 12, D + 16, D + 19].forEach((pitch, at) => put(0, end + at * 0.04, 4, pitch, 80));
  put(1, end, 4, D - 12, 84);
  return all;
}

/** How long the song is with the end of its last sound, in seconds. */
export const songLength = (): number => ((notes().at(-1)?.at ?? 0) * 60) / TEMPO + 3;
