/** The player in components. */
import { useEffect, useEffectEvent, useState, useSyncExternalStore } from 'react';
import { frameBefore } from '@cadence/core/time/frameRate.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import { useShown } from '../app/store.ts';
import { player, type PlayerState } from './player.ts';

export const usePlayerState = (): PlayerState => useSyncExternalStore(player.watch, player.state);

/** Calls back with the time on every screen frame while it moves, and once at first. */
export function useTimeFollower(follower: (time: Ticks) => void): void {
  const onTime = useEffectEvent(follower);
  useEffect(() => {
    onTime(player.time);
    return player.follow((time) => onTime(time));
  }, []);
}

/** The start of the frame that is shown now; renders once a frame of the programme. */
export function useFrameTime(): Ticks {
  const frameRate = useShown((programme) => programme.facts.frameRate);
  const [time, setTime] = useState(() => frameBefore(player.time, frameRate));
  useTimeFollower((now) => setTime(frameBefore(now, frameRate)));
  return time;
}
