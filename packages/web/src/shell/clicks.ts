/** Short clicks on instants of the programme while it plays, so that the ear can judge them. */
import { clicksIn } from '@cadence/core/rows/clicks.ts';
import { add, fromSeconds, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { currentStrand, openNow, store } from '../desk/store.ts';
import { player } from '../playback/player.ts';

/** How far ahead of the playhead clicks are handed to the sound's own clock, in seconds. */
const AHEAD = 0.12;

let context: AudioContext | null = null;
/** Up to when clicks were given to the sound's clock, in seconds of the programme. */
let given = -1;

/** Lets the clicks of the next moments sound; called as time moves. */
function follow(time: Ticks): void {
  const { playing, speed } = player.state();
  if (!playing || !store.getState().view.clicks || !store.getState().open) {
    given = -1;
    return;
  }
  context ??= new AudioContext({ latencyHint: 'interactive' });
  const now = toSeconds(time);
  // After a jump it begins anew.
  if (given < now - 0.3 || given > now + 1) given = now;
  const until = now + AHEAD * speed;
  // A tick more, so that what stands on the very end is in it.
  const { programme } = openNow();
  const { hand, tapFor } = store.getState().view;
  const worked = { hand, tapFor, strand: currentStrand(programme) };
  const stretch = { start: fromSeconds(given), end: add(fromSeconds(until), 1 as Ticks) };
  for (const { at, strong } of clicksIn(programme, stretch, worked)) {
    const when = toSeconds(at);
    if (when <= given || when > until) continue;
    click(context, context.currentTime + (when - now) / speed, strong);
  }
  given = until;
}

/** A tone of 25 ms that falls away, higher for a strong one. */
function click(sound: AudioContext, at: number, strong: boolean): void {
  const tone = sound.createOscillator();
  const gain = sound.createGain();
  tone.frequency.value = strong ? 1760 : 1175;
  gain.gain.setValueAtTime(0.0001, at);
  gain.gain.exponentialRampToValueAtTime(0.5, at + 0.002);
  gain.gain.exponentialRampToValueAtTime(0.0005, at + 0.025);
  tone.connect(gain).connect(sound.destination);
  tone.start(at);
  tone.stop(at + 0.03);
}

/** Begins to listen for what should click. */
export const followWithClicks = (): (() => void) => player.follow(follow);
