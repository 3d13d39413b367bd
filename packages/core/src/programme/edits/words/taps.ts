/** What taps along a programme that plays are for, and the edit that they make. */
import type { PulseEvidence } from '../../../listen/pulse/pulseEvidence.ts';
import { settleTaps } from '../../../listen/pulse/taps.ts';
import { fromSeconds, later, subtract, toSeconds, ZERO } from '../../../time/ticks.ts';
import { addMarks } from '../found/marks.ts';
import { redrawBeats } from '../found/pulse.ts';
import { materialTime, programmeTime } from '../../heard.ts';
import type { Id, Programme } from '../../programme.ts';
import type { Edit } from '../../record/change.ts';
import { tapCues, tapWords, type Tap } from './tapped.ts';
import { aOrMany } from '../../../text/plural.ts';

/** The kinds of things that a tap can be for. */
export const TAPS = ['marks', 'cues', 'words', 'lines', 'beats'] as const;
export type TapFor = (typeof TAPS)[number];

/** One press of the key, in seconds of the programme; `until` is null where it was not held. */
export interface Press {
  readonly at: number;
  readonly until: number | null;
}

/**
 * The taps that were meant by presses: put on the beginnings in the main sound, the delay of the finger taken off.
 *
 * @param evidence  what was heard of the main sound; none where it was not listened to
 * @param speed  how fast the programme was played
 * @returns the taps in order, and the delay in seconds
 */
export function tapsOfPresses(
  programme: Programme,
  presses: readonly Press[],
  evidence: Pick<PulseEvidence, 'onsets' | 'firstMiddle'> | undefined,
  speed: number,
): { readonly taps: readonly Tap[]; readonly delay: number } {
  const material = programme.facts.sound;
  const inSound = (seconds: number) =>
    toSeconds(materialTime(programme, material, fromSeconds(seconds)));
  const inProgramme = (seconds: number) => programmeTime(programme, material, fromSeconds(seconds));
  const { times, delay } = settleTaps(
    presses.map(({ at }) => inSound(at)),
    evidence ?? { onsets: new Uint8Array(0), firstMiddle: 0 },
    speed,
  );
  const taps = presses.map(({ at, until }, index): Tap => {
    // A finger is as late to rise as to fall.
    const risen = until === null ? null : subtract(fromSeconds(until), fromSeconds(delay));
    return { at: later(inProgramme(times[index] ?? inSound(at)), ZERO), until: risen };
  });
  return { taps: taps.sort((a, b) => a.at - b.at), delay };
}

/** What taps go to: the cues of a strand from one on, or the beats of a material. */
export interface TapTargets {
  readonly strand: Id;
  readonly firstCue: Id | undefined;
  readonly beatsOf: Id | undefined;
}

/** The edit that taps for a kind of thing make. */
export function editOfTaps(
  programme: Programme,
  tapFor: TapFor,
  taps: readonly Tap[],
  { strand, firstCue = '', beatsOf = '' }: TapTargets,
  newId: () => Id,
): Edit {
  switch (tapFor) {
    case 'marks': {
      const marks = taps.map(({ at }) => ({ at, purpose: 'place' as const }));
      const name = `Tap ${aOrMany(taps.length, 'mark')}`;
      return { ...addMarks(programme, marks, newId), name };
    }
    case 'beats': {
      const times = taps.map(({ at }) => materialTime(programme, beatsOf, at));
      return redrawBeats(
        programme,
        beatsOf,
        times.filter((at) => at >= ZERO),
        newId,
      );
    }
    case 'cues':
      return tapCues(programme, strand, firstCue, taps);
    case 'words':
      return tapWords(programme, strand, firstCue, taps, 'word');
    case 'lines':
      return tapWords(programme, strand, firstCue, taps, 'line');
  }
}
