/** The sounds of keys under letters, while the programme plays. */
import {
  cutKeys,
  laidKeys,
  recordingsOfKeys,
  strokesOfMaterial,
  type Key,
} from '@cadence/core/mix/keySounds.ts';
import { WAV_RATE } from '@cadence/core/mix/wavOf.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { fromSeconds, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { openNow, store } from '../desk/store.ts';
import { player } from '../playback/player.ts';
import { materialUrl } from '../sync/api.ts';

/** How far ahead of the playhead keys are handed to the sound's own clock, in seconds. */
const AHEAD = 0.15;

let context: AudioContext | null = null;
/** Up to when keys were given to the sound's clock, in seconds of the programme. */
let given = -1;
let sounding: AudioBufferSourceNode[] = [];
/** The keys of recordings, by what they were cut from. */
const cut = new Map<string, { readonly hits: Programme['hits']; keys: readonly Key[] }>();

/** The keys of a recording; begins to fetch them where they are not there. */
function keysOf({ hits, materials }: Programme, material: Id): readonly Key[] {
  const hash = materials[material]?.hash ?? '';
  const known = cut.get(hash);
  if (known?.hits === hits) return known.keys;
  const coming = { hits, keys: known?.keys ?? [] };
  cut.set(hash, coming);
  const fetchThem = async () => {
    const answer = await fetch(materialUrl(hash));
    const decoder = new OfflineAudioContext(2, 1, WAV_RATE);
    const whole = await decoder.decodeAudioData(await answer.arrayBuffer());
    const left = whole.getChannelData(0);
    const right = whole.numberOfChannels > 1 ? whole.getChannelData(1) : left;
    coming.keys = cutKeys([left, right], strokesOfMaterial({ hits }, material), WAV_RATE);
  };
  // A recording that cannot be had is silent; Material says that its file is gone.
  fetchThem().catch(() => cut.delete(hash));
  return coming.keys;
}

/** Fetches the keys of a programme, so that the first ones are there when it is played. */
export function prepareKeys(programme: Programme): void {
  for (const material of recordingsOfKeys(programme)) keysOf(programme, material);
}

/** Lets the keys of the next moments sound; called as time moves. */
function follow(time: Ticks): void {
  const { playing, speed } = player.state();
  if (!playing || !store.getState().open) {
    if (given >= 0) for (const source of sounding) source.stop();
    [given, sounding] = [-1, []];
    return;
  }
  const { programme } = openNow();
  const now = toSeconds(time);
  // After a jump it begins anew.
  if (given < now - 0.3 || given > now + 1) given = now;
  const until = now + AHEAD * speed;
  const stretch = { start: fromSeconds(now), end: fromSeconds(until) };
  for (const { at, material, key, sounds, left, right } of laidKeys(programme, stretch)) {
    const when = toSeconds(at);
    if (when <= given || when > until) continue;
    context ??= new AudioContext({ latencyHint: 'interactive' });
    const own = keysOf(programme, material)[key];
    if (own) play(context, own, context.currentTime + (when - now) / speed, sounds, [left, right]);
  }
  given = until;
}

function play(
  sound: AudioContext,
  { samples, struck }: Key,
  at: number,
  sounds: number,
  gains: readonly [left: number, right: number],
): void {
  const length = Math.min(samples[0].length, struck + Math.round(sounds * WAV_RATE));
  const buffer = sound.createBuffer(2, Math.max(1, length), WAV_RATE);
  for (const side of [0, 1] as const)
    buffer.copyToChannel(
      samples[side].slice(0, length).map((value) => value * gains[side]),
      side,
    );
  const source = sound.createBufferSource();
  source.buffer = buffer;
  source.connect(sound.destination);
  source.start(Math.max(sound.currentTime, at - struck / WAV_RATE));
  sounding.push(source);
  source.onended = () => (sounding = sounding.filter((each) => each !== source));
}

/** Begins to let keys sound as time moves; gives what stops it. */
export const followWithKeys = (): (() => void) => player.follow(follow);
