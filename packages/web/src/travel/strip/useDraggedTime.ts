/** Dragging a strip with the pointer, so that the time follows. */
import { useEffect, useRef, type PointerEvent } from 'react';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import { player } from '../../playback/player.ts';

/**
 * @param timeOf  the time to which a drag leads, from what it began with and how far it went, in pixels of the interface;
 *                undefined where there is none
 */
export function useDraggedTime<Begun>(
  timeOf: (begun: Begun, delta: { x: number; y: number }) => Ticks | undefined,
) {
  const latest = useRef(timeOf);
  latest.current = timeOf;
  const end = useRef<(() => void) | null>(null);
  useEffect(() => () => end.current?.(), []);
  return {
    begin: (event: PointerEvent, begun: Begun): void => {
      if (event.button !== 0) return;
      const [x, y] = [event.clientX, event.clientY];
      const moving = new AbortController();
      const { signal } = moving;
      end.current = () => moving.abort();
      player.pause();
      window.addEventListener(
        'pointermove',
        (moved) => {
          const to = latest.current(begun, { x: moved.clientX - x, y: moved.clientY - y });
          if (to !== undefined) player.seek(to);
        },
        { signal },
      );
      for (const kind of ['pointerup', 'pointercancel'] as const)
        window.addEventListener(kind, () => moving.abort(), { signal });
    },
  };
}
