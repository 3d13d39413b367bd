/** Hearing a whole sound file on Node. */
import { ListenerWithApart } from '@cadence/core/listen/apart.ts';
import { Listener, type Analysis, type Heard } from '@cadence/core/listen/listening.ts';
import { LONG, withApart } from './apart.ts';
import type { SoundFile } from './sound.ts';

/** What can be heard in a sound; in two threads where it is long and its pulse is wanted. */
export async function hear(sound: SoundFile, wanted: readonly Analysis[]): Promise<Heard> {
  if (sound.duration < LONG || !wanted.includes('pulse')) {
    const listener = new Listener(sound.sampleRate, wanted);
    for await (const channels of sound.chunks()) listener.push(channels);
    return listener.finish();
  }
  return withApart('listen', async (apart) => {
    const listener = new ListenerWithApart(sound.sampleRate, wanted, apart);
    for await (const channels of sound.chunks()) await listener.push(channels);
    return listener.finish();
  });
}
