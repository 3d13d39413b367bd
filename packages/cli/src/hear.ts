/** Hearing a whole sound file on Node. */
import { Worker } from 'node:worker_threads';
import { wrap } from 'comlink';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { ListenerWithApart, type ListenApart } from '@cadence/core/listen/apart.ts';
import { Listener, type Analysis, type Heard } from '@cadence/core/listen/listening.ts';
import type { SoundFile } from './sound.ts';

/** From so many seconds of sound on, a second thread is worth its start. */
const LONG = 120;

/**
 * What can be heard in a sound; in two threads where it is long and its pulse is wanted.
 *
 * @param alsoTo  is given the sound too, where the pulse is not wanted
 */
export async function hear(
  sound: SoundFile,
  wanted: readonly Analysis[],
  alsoTo: (channels: readonly Float32Array[]) => void = () => undefined,
): Promise<Heard> {
  if (sound.duration < LONG || !wanted.includes('pulse')) {
    const listener = new Listener(sound.sampleRate, wanted);
    for await (const channels of sound.chunks()) {
      listener.push(channels);
      alsoTo(channels);
    }
    return listener.finish();
  }
  const worker = new Worker(new URL('./apart.worker.mjs', import.meta.url));
  try {
    return await new Promise<Heard>((done, fail) => {
      worker.on('error', fail);
      const apart = wrap<ListenApart>(nodeEndpoint(worker));
      const listener = new ListenerWithApart(sound.sampleRate, wanted, apart);
      const work = async () => {
        for await (const channels of sound.chunks()) await listener.push(channels);
        return listener.finish();
      };
      work().then(done, fail);
    });
  } finally {
    await worker.terminate();
  }
}
