import { ListenerWithApart, listenApart, type ListenApart, type Reached } from './apart.ts';
import { ANALYSES, Listener } from './listening.ts';
import { drumKit } from './sounds.samples.ts';

const RATE = 48_000;
const { samples } = drumKit(RATE, { seconds: 25, bpm: 120, beats: 4 });

/** The other thread, as slow as it is told to be. */
function reached(wait: () => Promise<void>): Reached<ListenApart> {
  const there = listenApart();
  return {
    begin: async (rate) => there.begin(rate),
    push: async (block) => {
      await wait();
      there.push(block);
    },
    finish: async () => there.finish(),
  };
}

describe('listening in two threads', () => {
  it('hears what one hears', async () => {
    const alone = new Listener(RATE);
    const both = new ListenerWithApart(
      RATE,
      ANALYSES,
      reached(() => Promise.resolve()),
    );
    for (let at = 0; at < samples.length; at += 10_000) {
      alone.push([samples.subarray(at, at + 10_000)]);
      await both.push([samples.subarray(at, at + 10_000)]);
    }
    expect(await both.finish()).toEqual(alone.finish());
  });

  it('waits for the other thread instead of running ahead of it', async () => {
    const waiting: (() => void)[] = [];
    let asked = 0;
    const both = new ListenerWithApart(
      RATE,
      ANALYSES,
      reached(() => {
        asked++;
        return new Promise((done) => waiting.push(done));
      }),
    );
    let done = false;
    const pushed = both.push([samples]).then(() => (done = true));
    for (let turn = 0; turn < 20; turn++) await Promise.resolve();
    expect([asked, done]).toEqual([12, false]);
    for (let turn = 0; turn < 200 && !done; turn++) {
      waiting.shift()?.();
      await Promise.resolve();
    }
    await pushed;
    expect(done).toBe(true);
  });

  it('fails where the other thread fails', async () => {
    const both = new ListenerWithApart(
      RATE,
      ANALYSES,
      reached(() => Promise.reject(new Error('The thread ended.'))),
    );
    await both.push([samples.subarray(0, 1000)]);
    await expect(both.finish()).rejects.toThrow('The thread ended.');
  });
});

describe('sound with numbers that are none', () => {
  it('is heard as if they were silence', () => {
    const hear = (sound: Float32Array) => {
      const listener = new Listener(RATE);
      listener.push([sound]);
      return listener.finish();
    };
    const [damaged, mended] = [samples.slice(0, RATE), samples.slice(0, RATE)];
    [NaN, Infinity, -Infinity].forEach((value, at) => {
      damaged[20_000 + at] = value;
      mended[20_000 + at] = 0;
    });
    expect(hear(damaged)).toEqual(hear(mended));
  });
});
