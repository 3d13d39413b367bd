/** Short clicks on instants of the programme while it plays, so that the ear can judge them. */
import { heardBeats } from '@cadence/core/programme/heard.ts';
import { marksInOrder } from '@cadence/core/programme/order.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { instantsWithin, within, type Range } from '@cadence/core/time/range.ts';
import { add, fromSeconds, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { currentCues, openNow, store } from '../desk/store.ts';
import { player } from '../playback/player.ts';

/** How far ahead of the playhead clicks are handed to the sound's own clock, in seconds. */
const AHEAD = 0.12;

let context: AudioContext | null = null;
let told = -1;

/** What clicks in a stretch: beats, cues or words where they are worked on, and marks otherwise. */
function instants(programme: Programme, stretch: Range): readonly { at: Ticks; strong: boolean }[] {
  const { hand, tapFor } = store.getState().view;
  if (hand === 'beats' || tapFor === 'beats')
    return instantsWithin(heardBeats(programme), stretch).map(({ at, bar }) => ({
      at,
      strong: bar !== null,
    }));
  const cues = within(currentCues(programme), stretch);
  if (hand === 'cues' && tapFor === 'cues')
    return cues.map(({ start }) => ({ at: start, strong: false }));
  if (tapFor === 'words' || tapFor === 'lines')
    return cues.flatMap((cue) =>
      cue.words.map(({ start, source }) => ({ at: start, strong: source === 'tapped' })),
    );
  return instantsWithin(marksInOrder(programme), stretch).map(({ at }) => ({ at, strong: false }));
}

/** Lets the clicks of the next moments sound; called as time moves. */
function follow(time: Ticks): void {
  const { playing, speed } = player.state();
  if (!playing || !store.getState().view.clicks || !store.getState().open) {
    told = -1;
    return;
  }
  context ??= new AudioContext({ latencyHint: 'interactive' });
  const now = toSeconds(time);
  // After a jump it begins anew.
  if (told < now - 0.3 || told > now + 1) told = now;
  const until = now + AHEAD * speed;
  // A tick more, so that what stands on the very end is in it.
  const stretch = { start: fromSeconds(told), end: add(fromSeconds(until), 1 as Ticks) };
  for (const { at, strong } of instants(openNow().programme, stretch)) {
    const when = toSeconds(at);
    if (when <= told || when > until) continue;
    click(context, context.currentTime + (when - now) / speed, strong);
  }
  told = until;
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
