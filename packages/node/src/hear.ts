/** Hearing a whole sound file on Node. */
import type { ListenHelper, Remote } from '@cadence/core/listen/helper.ts';
import { Listener, type Heard } from '@cadence/core/listen/listening.ts';
import type { Analysis } from '@cadence/core/listen/loweredListener.ts';
import { LONG, withHelper } from './helperThread.ts';
import type { SoundFile } from './sound.ts';

/** What can be heard in a sound; with a helper thread where it is long and its pulse is wanted. */
export function hear(sound: SoundFile, wanted: readonly Analysis[]): Promise<Heard> {
  const listen = async (helper?: Remote<ListenHelper>) => {
    const listener = new Listener(sound.sampleRate, wanted, helper);
    for await (const channels of sound.chunks()) await listener.push(channels);
    return listener.finish();
  };
  return sound.duration < LONG || !wanted.includes('pulse')
    ? listen()
    : withHelper('listen', listen);
}
