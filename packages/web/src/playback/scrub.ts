/** Hearing the sound under the hand: while something is dragged, forwards and backwards, and held still. */
import { wrap, type Remote } from 'comlink';
import {
  addGrain,
  GRAIN_HOP,
  grainLength,
  Hand,
  type Stretch,
} from '@cadence/core/listen/grains.ts';
import { gainAt, inMaterial, soundsHeard } from '@cadence/core/programme/heard.ts';
import type { Programme, Sound } from '@cadence/core/programme/programme.ts';
import { fromSeconds, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { materialUrl } from '../sync/api.ts';
import type { Decoding } from '../workers/sound.worker.ts';

/** The length of a decoded block in seconds, and the number of blocks that are kept. */
const BLOCK = 4;
const BLOCKS_KEPT = 24;
/** How far ahead of the clock grains are handed to it, in seconds. */
const AHEAD = 0.012;

let decoding: Remote<Decoding> | undefined;
const blocks = new Map<string, Stretch | 'coming'>();

/** The block of a material that holds a second of it; begins to decode it where it is not there. */
function blockAt(hash: string, second: number): Stretch | undefined {
  const number = Math.floor(second / BLOCK);
  if (number < 0) return undefined;
  const key = `${hash} ${number}`;
  const known = blocks.get(key);
  if (known) return known === 'coming' ? undefined : known;
  decoding ??= wrap<Decoding>(
    new Worker(new URL('../workers/sound.worker.ts', import.meta.url), { type: 'module' }),
  );
  blocks.set(key, 'coming');
  const url = new URL(materialUrl(hash), window.location.href).href;
  // A little more on either side, so that no grain is cut at a block's edge.
  const [from, to] = [number * BLOCK - 0.2, (number + 1) * BLOCK + 0.2];
  decoding
    .stretch(url, from, to)
    .then((found) => {
      if (found) blocks.set(key, found);
      else blocks.delete(key);
      const [oldest] = blocks.keys();
      if (blocks.size > BLOCKS_KEPT && oldest !== undefined) blocks.delete(oldest);
    })
    .catch(() => blocks.delete(key));
  return undefined;
}

class Scrubber {
  #context: AudioContext | null = null;
  #hand: Hand | null = null;
  #heard: readonly { sound: Sound; hash: string }[] = [];
  #next = 0;
  #timer = 0;

  /** The hand is put on an instant of the programme. */
  begin(programme: Programme, time: Ticks): void {
    this.#heard = soundsHeard(programme).flatMap((sound) => {
      const hash = programme.materials[sound.material]?.hash;
      return hash === undefined ? [] : [{ sound, hash }];
    });
    if (this.#heard.length === 0) return;
    this.#context ??= new AudioContext({ latencyHint: 'interactive' });
    void this.#context.resume();
    this.#hand = new Hand(toSeconds(time), this.#context.currentTime);
    this.#next = this.#context.currentTime + AHEAD;
    this.#fetchAround(toSeconds(time));
    clearInterval(this.#timer);
    this.#timer = window.setInterval(() => this.#run(), 8);
  }

  /** The hand has moved; it begins there if it was not down. */
  move(programme: Programme, time: Ticks): void {
    if (!this.#hand) this.begin(programme, time);
    if (!this.#hand || !this.#context) return;
    this.#hand.move(toSeconds(time), this.#context.currentTime);
    this.#fetchAround(toSeconds(time));
  }

  /** The hand is lifted: the grain that sounds rings out. */
  end(): void {
    clearInterval(this.#timer);
    this.#hand = null;
  }

  #fetchAround(second: number): void {
    for (const { sound, hash } of this.#heard)
      for (const off of [0, -1, 1]) {
        const at = toSeconds(inMaterial(sound, fromSeconds(second)));
        blockAt(hash, at + off);
      }
  }

  #run(): void {
    const [context, hand] = [this.#context, this.#hand];
    if (!context || !hand) return;
    // After the page was busy, what was missed is not made up for.
    if (this.#next < context.currentTime) this.#next = context.currentTime + 0.002;
    while (this.#next < context.currentTime + AHEAD) {
      this.#play(context, hand);
      this.#next += GRAIN_HOP;
    }
  }

  #play(context: AudioContext, hand: Hand): void {
    const grain = hand.next(context.currentTime);
    for (const { sound, hash } of this.#heard) {
      const gain = gainAt(sound, fromSeconds(grain.at)) * grain.gain;
      const at = toSeconds(inMaterial(sound, fromSeconds(grain.at)));
      const block = gain > 0 ? blockAt(hash, at) : undefined;
      if (!block) continue;
      const samples = new Float32Array(grainLength(block.rate));
      addGrain(samples, block, { ...grain, at, gain });
      const buffer = context.createBuffer(1, samples.length, block.rate);
      buffer.copyToChannel(samples, 0);
      const source = context.createBufferSource();
      source.buffer = buffer;
      source.connect(context.destination);
      source.start(this.#next);
    }
  }
}

export const scrubber = new Scrubber();
