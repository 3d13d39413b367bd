import { listenHelper, type ListenHelper, type Remote } from './helper.ts';
import { Listener } from './listening.ts';
import { ANALYSES } from './loweredListener.ts';
import { drumKit } from './sounds.samples.ts';

const RATE = 48_000;
const { samples } = drumKit(RATE, { seconds: 25, bpm: 120, beats: 4 });

/** A helper thread, as slow as it is told to be. */
function helper(wait: () => Promise<void>): Remote<ListenHelper> {
  const there = listenHelper();
  return {
    begin: async (rate, wanted) => there.begin(rate, wanted),
    push: async (block, high) => {
      await wait();
      there.push(block, high);
    },
    finish: async () => there.finish(),
  };
}

describe('listening with a helper thread', () => {
  it('hears what is heard without one', async () => {
    const alone = new Listener(RATE);
    const both = new Listener(
      RATE,
      ANALYSES,
      helper(() => Promise.resolve()),
    );
    for (let at = 0; at < samples.length; at += 10_000) {
      await alone.push([samples.subarray(at, at + 10_000)]);
      await both.push([samples.subarray(at, at + 10_000)]);
    }
    expect(await both.finish()).toEqual(await alone.finish());
  });

  it('waits for the helper instead of running ahead of it', async () => {
    const waiting: (() => void)[] = [];
    let asked = 0;
    const both = new Listener(
      RATE,
      ANALYSES,
      helper(() => {
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

  it('gives the helper only what is wanted', async () => {
    let asked: readonly string[] = [];
    const there = helper(() => Promise.resolve());
    const listener = new Listener(RATE, ['speech', 'hits'], {
      ...there,
      begin: (rate, wanted) => {
        asked = wanted;
        return there.begin(rate, wanted);
      },
    });
    await listener.push([samples]);
    const alone = new Listener(RATE, ['speech', 'hits']);
    await alone.push([samples]);
    expect(await listener.finish()).toEqual(await alone.finish());
    expect(asked).toEqual(['hits']);
  });

  it('fails where the helper fails', async () => {
    const both = new Listener(
      RATE,
      ANALYSES,
      helper(() => Promise.reject(new Error('The thread ended.'))),
    );
    await both.push([samples.subarray(0, 1000)]);
    await expect(both.finish()).rejects.toThrow('The thread ended.');
  });
});

describe('sound with numbers that are none', () => {
  it('is heard as if they were silence', async () => {
    const hear = async (sound: Float32Array) => {
      const listener = new Listener(RATE);
      await listener.push([sound]);
      return listener.finish();
    };
    const [damaged, mended] = [samples.slice(0, RATE), samples.slice(0, RATE)];
    [NaN, Infinity, -Infinity].forEach((value, at) => {
      damaged[20_000 + at] = value;
      mended[20_000 + at] = 0;
    });
    expect(await hear(damaged)).toEqual(await hear(mended));
  });
});
