/** Links that lead to a cue and a time: read when a programme opens, kept up while it is worked on. */
import { useEffect } from 'react';
import { frameBefore } from '@cadence/core/time/frameRate.ts';
import { add, subtract } from '@cadence/core/time/ticks.ts';
import { formatTimecode, parseTimecode } from '@cadence/core/time/timecode.ts';
import { player } from '../playback/player.ts';
import { openNow, store, useApp } from '../desk/store.ts';
import { selected } from '../desk/view.ts';

/** Selects the cue and seeks the time that a link names; what does not exist is passed over. */
export function followLink(query: URLSearchParams): void {
  const { cues, facts } = openNow().programme;
  const cue = cues[query.get('cue') ?? ''];
  store.dispatch(selected(cue ? [cue.id] : []));
  const at = parseTimecode(query.get('at') ?? '', facts.frameRate);
  if (at !== undefined) player.seek(subtract(at, facts.startTimecode));
  else player.seek(cue ? cue.start : (0 as never));
}

/** Keeps the address in step with the selected cue and with the playhead. */
export function useKeptLink(): void {
  const cue = useApp((state) => state.view.selection.at(-1));
  useEffect(() => {
    const write = () => {
      timer = undefined;
      if (!store.getState().open) return;
      const { frameRate, startTimecode } = openNow().programme.facts;
      const query = new URLSearchParams(window.location.search);
      query.set(
        'at',
        formatTimecode(add(frameBefore(player.time, frameRate), startTimecode), frameRate),
      );
      if (cue === undefined) query.delete('cue');
      else query.set('cue', cue);
      const address = `${window.location.pathname}?${query.toString()}`;
      if (address !== window.location.pathname + window.location.search)
        window.history.replaceState(window.history.state, '', address);
    };
    // Browsers bound how often the address may change: a few times a second is enough.
    let timer: ReturnType<typeof setTimeout> | undefined;
    const later = () => {
      timer ??= setTimeout(write, 400);
    };
    later();
    const [offTime, offState] = [player.follow(later), player.watch(later)];
    return () => {
      clearTimeout(timer);
      offTime();
      offState();
    };
  }, [cue]);
}
