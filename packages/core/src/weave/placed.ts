/** Where words of a script lie in a stretch that was aligned. */
import { FILLER } from './lattice.ts';

/** A sound of speech and the frames it lies in: its first, and the first after it. */
export interface PlacedPhone {
  readonly phone: number;
  readonly from: number;
  readonly to: number;
}

/** Where each word of the script lies on the sound, and how well what is heard there fits it. */
export interface Placed {
  /** Frames: the first that is its own, and the first after it. */
  readonly from: number;
  readonly to: number;
  /** How much less likely each frame is than the best sound there is: on the whole, and of the phone that fits worst. */
  readonly short: number;
  readonly worst: number;
  /** The same on the whole, by the model that learnt the voice. */
  readonly shortOwn: number;
  /** How much less likely each frame is than the best sound there, by what the network heard; 0 without it. */
  readonly shortHeard: number;
  /** Frames a phone. */
  readonly pace: number;
  /** Its phones in turn. */
  readonly phones: readonly PlacedPhone[];
  /** Frames of what is not written beside it, up to the words before and after it in its stretch. */
  readonly strange: number;
}

export type Places = readonly (Placed | undefined)[];

/** A stretch that was aligned, with what `shortfall` says of it. */
export interface Judged {
  readonly from: number;
  readonly tokenOf: Int32Array;
  readonly phoneOf: Uint8Array;
  readonly senoneOf: Int32Array;
  /** The phone that is silence. */
  readonly silence: number;
  readonly short: Float32Array;
  /** The same by the model that learnt the voice. */
  readonly shortOwn: Float32Array;
  /** The same by what the network heard. */
  readonly shortHeard: Float32Array;
}

/** Of each token of a stretch where it lies, or undefined where it was not said. */
export function placesOf(judged: Judged, count: number): Places {
  const { from, tokenOf, phoneOf, short, shortOwn, shortHeard } = judged;
  const strangeBefore = strangeUpTo(judged);
  const places = Array.from({ length: count }, (): Placed | undefined => undefined);
  let at = 0;
  while (at < tokenOf.length) {
    const token = tokenOf[at] as number;
    if (token < 0) {
      at++;
      continue;
    }
    let [last, total, totalOwn, totalHeard, frames] = [at, 0, 0, 0, 0];
    const phones: PlacedPhone[] = [];
    let worst = -Infinity;
    let [phone, phoneTotal, phoneFrames] = [-1, 0, 0];
    const close = () => {
      if (phoneFrames === 0) return;
      worst = Math.max(worst, phoneTotal / phoneFrames);
      const to = from + last + 1;
      phones.push({ phone, from: to - phoneFrames, to });
    };
    // Pauses inside a number belong to it; what follows is another token.
    for (let frame = at; frame < tokenOf.length; frame++) {
      const own = tokenOf[frame] as number;
      if (own >= 0 && own !== token) break;
      if (own < 0) continue;
      if (phoneOf[frame] !== phone || last !== frame - 1) {
        if (frame > at) close();
        [phone, phoneTotal, phoneFrames] = [phoneOf[frame] as number, 0, 0];
      }
      phoneTotal += short[frame] as number;
      phoneFrames++;
      total += short[frame] as number;
      totalOwn += shortOwn[frame] as number;
      totalHeard += shortHeard[frame] as number;
      frames++;
      last = frame;
    }
    close();
    places[token] = {
      from: from + at,
      to: from + last + 1,
      short: total / frames,
      shortOwn: totalOwn / frames,
      shortHeard: totalHeard / frames,
      worst,
      pace: frames / phones.length,
      phones,
      strange: strangeBefore(at, -1) + strangeBefore(last, 1),
    };
    at = last + 1;
  }
  return places;
}

/** How many frames beside one, one way, are neither of a word nor silence, up to the next word. */
const strangeUpTo =
  ({ tokenOf, senoneOf, phoneOf, silence }: Judged) =>
  (frame: number, step: 1 | -1): number => {
    let count = 0;
    for (let at = frame + step; at >= 0 && at < tokenOf.length; at += step) {
      if ((tokenOf[at] as number) >= 0) break;
      if (senoneOf[at] === FILLER || phoneOf[at] !== silence) count++;
    }
    return count;
  };
