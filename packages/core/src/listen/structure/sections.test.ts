import { DRUMS } from '../pulse/drums.ts';
import { HARMONIES_A_SECOND, HARMONY } from '../pulse/harmony.ts';
import type { PulseEvidence } from '../pulse/pulseEvidence.ts';
import { STEPS_A_SECOND } from '../signal/steps.ts';
import { findSections } from './sections.ts';

/** Bars of two seconds. */
const BAR = 2;

/** What a bar of a kind sounds like: the pitches of its two halves, whether there are drums, its loudness in LUFS. */
const KINDS: Readonly<Record<string, { chords: readonly number[]; drums: boolean; lufs: number }>> =
  {
    i: { chords: [0, 5, 0, 5], drums: false, lufs: -26 },
    v: { chords: [0, 7, 9, 5], drums: true, lufs: -18 },
    c: { chords: [5, 7, 0, 2], drums: true, lufs: -12 },
    b: { chords: [3, 10, 3, 8], drums: false, lufs: -25 },
  };

/** Evidence of a song whose bars are of these kinds, each in phrases of four. */
function songOf(form: string) {
  const bars = [...form];
  const seconds = bars.length * BAR;
  const kindAt = (time: number) =>
    KINDS[bars[Math.min(bars.length - 1, Math.floor(time / BAR))] ?? 'i'];
  const harmony = new Uint8Array(Math.ceil(seconds * HARMONIES_A_SECOND) * HARMONY);
  for (let frame = 0; frame < harmony.length / HARMONY; frame++) {
    const time = frame / HARMONIES_A_SECOND + 0.128;
    const root = kindAt(time)?.chords[Math.floor(time / BAR) % 4] ?? 0;
    for (const above of [0, 4, 7]) harmony[frame * HARMONY + 12 + ((root + above) % 12)] = 90;
    harmony[frame * HARMONY + root] = 120;
  }
  const strokes = new Uint8Array(seconds * STEPS_A_SECOND * DRUMS.length);
  for (let step = 0; step < strokes.length / DRUMS.length; step += 25)
    if (kindAt(step / STEPS_A_SECOND)?.drums)
      strokes[step * DRUMS.length + ((step / 25) % 2)] = 240;
  const momentary = Uint8Array.from(
    { length: seconds * 10 },
    (_, at) => 2 * (100 + (kindAt(at / 10)?.lufs ?? -30)),
  );
  const evidence: PulseEvidence = {
    ...{ harmony, strokes, firstMiddle: 0 },
    ...{ activations: new Uint8Array(0), onsets: new Uint8Array(0) },
  };
  const lines = Array.from({ length: bars.length + 1 }, (_, at) => at * BAR);
  return findSections(evidence, { momentary }, lines);
}

const told = (form: string) =>
  songOf(form).map(({ kind, letter, start }) => `${kind} ${letter} ${start / BAR}`);

describe('the sections of a song', () => {
  it('are where it changes, alike where they come again, and named', () => {
    expect(told('iiiivvvvvvvvccccccccvvvvvvvvccccccccbbbbcccccccc')).toEqual([
      'intro A 0',
      'verse B 4',
      'chorus C 12',
      'verse B 20',
      'chorus C 28',
      'break D 36',
      'chorus C 40',
    ]);
  });

  it('are one where nothing changes, and none of a few bars, or of more than a song', () => {
    expect(told('vvvvvvvvvvvvvvvv')).toHaveLength(1);
    expect(told('vvvvvvvv')).toEqual([]);
    expect(told('v'.repeat(601))).toEqual([]);
  });
});
