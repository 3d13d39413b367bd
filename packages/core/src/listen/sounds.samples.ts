/** Made-up sounds of which one knows where everything is, for tests and benchmarks. */

/** Noise between -1 and 1 that is the same each time (mulberry32). */
export function noise(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2147483648 - 1;
  };
}

export interface Struck {
  /** In seconds. */
  readonly at: number;
  /** Peak, of full scale. */
  readonly loud: number;
  /** How fast it dies away: the time to a third, in seconds. */
  readonly ring: number;
  /** Pitch of its tone in hertz, beside its noise. */
  readonly pitch: number;
}

/** Adds sounds that begin at once and die away. */
export function strike(samples: Float32Array, rate: number, hits: readonly Struck[]): void {
  const hiss = noise(5);
  for (const { at, loud, ring, pitch } of hits) {
    const first = Math.round(at * rate);
    const last = Math.min(samples.length, first + Math.round(7 * ring * rate));
    for (let place = Math.max(0, first); place < last; place++) {
      const t = (place - first) / rate;
      const tone = 0.6 * Math.sin(2 * Math.PI * pitch * t) + 0.4 * hiss();
      samples[place] = (samples[place] as number) + loud * Math.exp(-t / ring) * tone;
    }
  }
}

/** Adds even noise. */
export function addHiss(samples: Float32Array, loud: number): void {
  const hiss = noise(11);
  for (let at = 0; at < samples.length; at++) samples[at] = (samples[at] as number) + loud * hiss();
}

/**
 * A drum kit in bars of so many beats: a deep drum on the first, a sharp one on the others (in four, on the
 * second and fourth, with a deep one after the third), and a hat on every half beat.
 */
export function drumKit(
  rate: number,
  {
    seconds,
    bpm,
    beats,
    first = 0.5,
    halves = [0, 0.5],
  }: {
    seconds: number;
    bpm: number;
    beats: number;
    first?: number;
    /** Where in the beat the cymbal is struck; the first is the louder one. */
    halves?: readonly number[];
  },
): { samples: Float32Array; beats: number[]; bars: number[] } {
  const samples = new Float32Array(rate * seconds);
  const step = 60 / bpm;
  const hits: Struck[] = [];
  const times: number[] = [];
  for (let beat = 0; first + beat * step < seconds - 0.3; beat++) {
    const at = first + beat * step;
    const place = beat % beats;
    times.push(at);
    if (place === 0) hits.push({ at, loud: 0.8, ring: 0.09, pitch: 62 });
    if (beats === 4 && place === 2)
      hits.push({ at: at + step / 2, loud: 0.5, ring: 0.09, pitch: 62 });
    if (beats === 4 ? place % 2 === 1 : place > 0)
      hits.push({ at, loud: 0.45, ring: 0.05, pitch: 210 });
    for (const half of halves)
      hits.push({ at: at + half * step, loud: half ? 0.08 : 0.14, ring: 0.012, pitch: 5200 });
  }
  strike(samples, rate, hits);
  return { samples, beats: times, bars: times.filter((_, at) => at % beats === 0) };
}
