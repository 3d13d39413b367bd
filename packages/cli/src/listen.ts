/** `listen`: what can be heard in a sound. */
import type { Heard } from '@cadence/core/listen/listening.ts';
import type { Analysis } from '@cadence/core/listen/loweredListener.ts';
import { findOnsets } from '@cadence/core/listen/pulse/onsets.ts';
import {
  barLinesOf,
  findPulse,
  tempoOf,
  type FoundPulse,
} from '@cadence/core/listen/pulse/pulse.ts';
import { DRUMS, type Drum } from '@cadence/core/listen/pulse/drums.ts';
import type { PulseEvidence } from '@cadence/core/listen/pulse/pulseEvidence.ts';
import { findStrokes } from '@cadence/core/listen/pulse/strokes.ts';
import { swingOf } from '@cadence/core/listen/pulse/swing.ts';
import { findSections } from '@cadence/core/listen/structure/sections.ts';
import { findPieces } from '@cadence/core/listen/speech/speech.ts';
import { lengthOf } from '@cadence/core/time/range.ts';
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { WrongUsage } from './failure.ts';
import { pathOf } from './files.ts';
import { secondsOf } from './output.ts';
import { hear } from '@cadence/node/hear.ts';
import { openSound } from '@cadence/node/sound.ts';

/** What can be asked for, and what has to be listened for to answer. */
const answers = {
  speech: { needs: 'speech', of: speechOf },
  onsets: {
    needs: 'pulse',
    of: ({ pulse }: Heard) => ({ onsets: findOnsets(pulse.onsets, pulse.firstMiddle) }),
  },
  pulse: { needs: 'pulse', of: pulseOf },
  drums: {
    needs: 'pulse',
    of: ({ pulse }: Heard) => {
      const strokes = findStrokes(pulse);
      const of = (drum: Drum) => strokes.filter((stroke) => stroke.drum === drum);
      return {
        drums: Object.fromEntries(DRUMS.map((drum) => [drum, of(drum).map(({ at }) => at)])),
      };
    },
  },
  sections: {
    needs: 'pulse',
    of: ({ pulse, level }: Heard) => {
      return { sections: findSections(pulse, level, barLinesOf(pulseIn(pulse))) };
    },
  },
  hits: {
    needs: 'hits',
    of: ({ hits }: Heard) => ({
      hits: hits.map(({ start, end, levelDb }) => ({ start, end, levelDb })),
    }),
  },
} as const satisfies Record<
  string,
  { needs: Analysis; of: (heard: Heard, duration: number) => object }
>;
type Answer = keyof typeof answers;

const pulses = new WeakMap<PulseEvidence, FoundPulse>();

/** The pulse of a sound, found once. */
function pulseIn(evidence: PulseEvidence): FoundPulse {
  const found = pulses.get(evidence) ?? findPulse(evidence);
  pulses.set(evidence, found);
  return found;
}

/** The JSON of `listen`. */
export async function listenCommand(file: string, only: string | undefined): Promise<object> {
  const names = only?.split(',') ?? Object.keys(answers);
  const unknown = names.find((name) => !Object.hasOwn(answers, name));
  if (unknown !== undefined)
    throw new WrongUsage(`--only takes ${Object.keys(answers).join(', ')}; not ${unknown}.`);
  const wanted = names.map((name) => answers[name as Answer]);
  const sound = await openSound(pathOf(file));
  const heard = await hear(
    sound,
    wanted.map(({ needs }) => needs),
  );
  const { integratedLufs, truePeakDb } = heard.level;
  return {
    file,
    duration: sound.duration,
    sampleRate: sound.sampleRate,
    channels: sound.channels,
    level: { integratedLufs, truePeakDb },
    ...Object.assign({}, ...wanted.map(({ of }) => of(heard, sound.duration))),
  };
}

function speechOf({ speech }: Heard, duration: number): object {
  const pieces = findPieces(speech);
  const spoken = pieces.reduce((sum, piece) => sum + toSeconds(lengthOf(piece)), 0);
  return {
    pieces: pieces.map((piece) => ({ start: secondsOf(piece.start), end: secondsOf(piece.end) })),
    speechShare: duration > 0 ? spoken / duration : 0,
  };
}

function pulseOf({ pulse }: Heard): object {
  const { beats, metre, confidence } = pulseIn(pulse);
  const times = beats.map(({ at }) => at);
  return {
    pulse: {
      beats: beats.map(({ at, bar, confidence: sure, barConfidence }) => ({
        ...{ at, bar, barConfidence },
        confidence: sure,
      })),
      tempo: tempoOf(times),
      metre,
      swing: (metre !== '6/8' && swingOf(pulse, times)) || null,
      confidence,
    },
  };
}
