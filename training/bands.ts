/** What weaving hears of a file of sound. */
import type { Bands } from '@cadence/core/weave/cepstra.ts';
import { VoiceListener } from '@cadence/core/weave/voiceListener.ts';
import { openSound } from '@cadence/node/sound.ts';

export async function bandsOf(path: string): Promise<Bands> {
  const sound = await openSound(path);
  const listener = new VoiceListener(sound.sampleRate);
  for await (const channels of sound.chunks()) listener.push(channels);
  return listener.finish();
}
