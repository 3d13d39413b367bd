/** `listen`: what can be heard in a sound. */
import { Listener } from '@cadence/core/listen/listening.ts';
import { findPieces } from '@cadence/core/listen/speech.ts';
import { lengthOf } from '@cadence/core/time/range.ts';
import { toSeconds } from '@cadence/core/time/ticks.ts';
import { WrongUsage } from './failure.ts';
import { pathOf } from './files.ts';
import { secondsOf } from './output.ts';
import { openSound } from './sound.ts';

const analyses = ['speech'];

/** The JSON of `listen`. */
export async function listenCommand(file: string, only: string | undefined): Promise<object> {
  const wanted = only?.split(',') ?? analyses;
  const unknown = wanted.find((name) => !analyses.includes(name));
  if (unknown !== undefined)
    throw new WrongUsage(`--only takes ${analyses.join(', ')}; not ${unknown}.`);
  const sound = await openSound(pathOf(file));
  const listener = new Listener(sound.sampleRate);
  for await (const channels of sound.chunks()) listener.push(channels);
  const { speech, level } = listener.finish();
  const pieces = findPieces(speech);
  const spoken = pieces.reduce((sum, piece) => sum + toSeconds(lengthOf(piece)), 0);
  return {
    file,
    duration: sound.duration,
    sampleRate: sound.sampleRate,
    channels: sound.channels,
    level,
    pieces: pieces.map((piece) => ({ start: secondsOf(piece.start), end: secondsOf(piece.end) })),
    speechShare: sound.duration > 0 ? spoken / sound.duration : 0,
  };
}
