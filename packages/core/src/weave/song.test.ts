import type { AcousticModel } from './acousticModel.ts';
import { BandsListener, FILTERS, SideListener } from './cepstra.ts';
import { hearSong, type SongWeights } from './song.ts';
import { FRAMES_A_STEP, SONG_BANDS, SONG_INPUTS, songInputs } from './songBands.ts';
import { VoiceListener } from './voiceListener.ts';

const RATE = 16_000;
const SECONDS = 2;
const tone = (hertz: number, loud: number) =>
  Float32Array.from(
    { length: SECONDS * RATE },
    (_, at) => loud * Math.sin((2 * Math.PI * hertz * at) / RATE),
  );
const heard = (...channels: Float32Array[]) => {
  const listener = new VoiceListener(RATE);
  listener.push(channels);
  return listener.finish();
};
const song = (...channels: Float32Array[]) => {
  const bands = heard(...channels);
  if (!bands.song) throw new Error('There are no levels.');
  return { ...bands, song: bands.song };
};

describe('what the network of songs is shown', () => {
  it('is the same at another level', () => {
    const [loud, soft] = [
      songInputs(song(tone(440, 0.5)).song),
      songInputs(song(tone(440, 0.02)).song),
    ];
    expect(loud).toHaveLength(SONG_INPUTS * Math.floor((SECONDS * 100 - 2) / FRAMES_A_STEP));
    loud.forEach((value, at) => {
      // What is too faint to be told apart counts as silence.
      if (value > -2) expect(Math.abs(value - (soft[at] as number))).toBeLessThan(0.11);
    });
  });

  it('keeps apart what is common to two channels and what differs', () => {
    const [voice, left] = [tone(440, 0.3), tone(2000, 0.3)];
    const inputs = songInputs(
      song(
        voice.map((sample, at) => sample + (left[at] as number)),
        voice,
      ).song,
    );
    const frame = inputs.subarray(40 * SONG_INPUTS, 40 * SONG_INPUTS + 2 * SONG_BANDS);
    const strongest = (from: number) => {
      const levels = frame.subarray(from, from + SONG_BANDS);
      return levels.indexOf(Math.max(...levels));
    };
    // 440 Hz lies in the middle, 2,000 Hz in both.
    expect(strongest(SONG_BANDS)).toBeGreaterThan(15);
    expect(frame[SONG_BANDS + 6]).toBeLessThan((frame[6] ?? 0) - 2);
    expect(songInputs(song(voice).song)[SONG_BANDS]).toBe(-6);
  });

  it('has as many frames as the bands of the acoustic model', () => {
    const listener = new BandsListener(RATE);
    const side = new SideListener(RATE);
    for (const chunk of [tone(300, 0.1), tone(500, 0.1).subarray(0, 777)]) {
      listener.push(chunk);
      side.push(chunk);
    }
    const { levels, song: both } = listener.bands(side);
    expect(both?.middle.length).toBe((levels.length / FILTERS) * SONG_BANDS);
    expect(both?.side).toEqual(both?.middle);
  });
});

describe('a song that is heard', () => {
  const phones = ['SIL', 'B', '+NSN+', 'AA'];
  const outputs = 3 + FILTERS;
  /** A network that says the same at every step: AA is held, and half of each band is the voice's. */
  const weights: SongWeights = {
    inputs: SONG_INPUTS,
    channels: 1,
    outputs,
    firstTaps: 1,
    taps: 1,
    distances: [],
    mean: Array<number>(SONG_INPUTS).fill(0),
    spread: Array<number>(SONG_INPUTS).fill(1),
    coded: '\u017f'.repeat(SONG_INPUTS + outputs),
    steps: Array<number>(1 + outputs).fill(0),
    offsets: [0, 0, 3, 1, ...Array<number>(FILTERS).fill(0)],
    phones: ['B', 'AA'],
    priors: [Math.log(0.25), Math.log(0.25), Math.log(0.5)],
  };
  const model = { phones } as unknown as AcousticModel;
  const given = song(tone(440, 0.3));
  const found = hearSong(weights, model, given);
  if (!found) throw new Error('Nobody sings.');

  it('says of each sound how much likelier it is than it is at all', () => {
    const whole = Math.log(1 + Math.exp(3) + Math.exp(1));
    const [silence, b, noise, a] = found.song.likelier;
    // A part of how often it is sung at all is taken off.
    const part = 0.3;
    expect(a).toBeCloseTo(3 - whole - part * Math.log(0.25), 4);
    expect(b).toBeCloseTo(-whole - part * Math.log(0.25), 4);
    expect(silence).toBeCloseTo(1 - whole - part * Math.log(0.5), 4);
    expect(noise).toBe(silence);
    expect(found.song.sung[7]).toBeCloseTo(1 - Math.exp(1 - whole), 4);
  });

  it('hears that a vowel is held, and that this tells less and less', () => {
    const { news } = found.song;
    expect(news[0]).toBe(1);
    expect(news[20]).toBeLessThan(news[10] ?? 0);
    // Who holds no vowel speaks: that is heard without the network.
    const spoken = { ...weights, offsets: [0, 3, 0, ...weights.offsets.slice(3)] };
    expect(hearSong(spoken, model, given)).toBeUndefined();
  });

  it('hears who speaks through music, and not who speaks over a steady noise', () => {
    const on = (second: number) => second % 1 < 0.5;
    const parts = (beside: (second: number) => number) => {
      const samples = Float32Array.from({ length: 4 * RATE }, (_, at) => {
        const second = at / RATE;
        const voice = on(second) ? 0.3 * Math.sin(2 * Math.PI * 440 * second) : 0;
        // A saw: it has all harmonics.
        return voice + 0.1 * (2 * ((beside(second) * second) % 1) - 1);
      });
      return song(samples);
    };
    const [scored, steady] = [
      parts((second) => 110 * 1.5 ** (Math.floor(10 * second) % 4)),
      parts(() => 110),
    ];
    /** A network that hears B where the band of the voice is loud, and nobody elsewhere. */
    const frame = songInputs(scored.song).subarray(10 * SONG_INPUTS, 10 * SONG_INPUTS + SONG_BANDS);
    const band = frame.indexOf(Math.max(...frame));
    const one = (at: number) => String.fromCharCode(0x17f + at);
    const coded = Array.from({ length: SONG_INPUTS }, (_, at) => one(at === band ? 127 : 0));
    const speaking: SongWeights = {
      ...weights,
      coded: [...coded, one(127), one(0), one(-127), ...Array<string>(FILTERS).fill(one(0))].join(
        '',
      ),
      steps: [1 / 127, ...Array<number>(outputs).fill(4 / 127)],
      offsets: [0, 0, -9, 3, ...Array<number>(FILTERS).fill(0)],
    };
    expect(hearSong(speaking, model, scored)).toBeDefined();
    expect(hearSong(speaking, model, steady)).toBeUndefined();
  });

  it('takes off each band of singing what is not the voice', () => {
    const at = 30 * FILTERS + 5;
    const less = (given.levels[at] as number) - (found.bands.levels[at] as number);
    expect(less).toBeCloseTo(Math.log(2), 4);
    expect(found.bands.levels).toHaveLength(given.levels.length);
  });
});
