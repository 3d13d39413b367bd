/** The player in components. */
import { useEffect, useEffectEvent, useSyncExternalStore } from 'react';
import type { Ticks } from '@cadence/core/time/ticks.ts';
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
