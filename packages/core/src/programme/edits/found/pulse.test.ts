import { fromSeconds, toSeconds } from '../../../time/ticks.ts';
import { beatsInOrder } from '../../order.ts';
import type { Programme } from '../../programme.ts';
import { countingIds } from '../../samples.ts';
import { done, withBeats } from '../done.samples.ts';
import {
  doublePulse,
  fixBeats,
  halvePulse,
  moveBeat,
  redrawBeats,
  removeBeats,
  setFirstBar,
  setMetre,
  setPulse,
  shiftBars,
  shiftHalfBeat,
} from './pulse.ts';

const s = fromSeconds;
const times = (programme: Programme) =>
  beatsInOrder(programme, 'm').map(({ at }) => Number(toSeconds(at).toFixed(3)));
const bars = (programme: Programme) =>
  beatsInOrder(programme, 'm').flatMap(({ bar }, at) => (bar ? [at] : []));

describe('the pulse', () => {
  it('is halved in step with its bars, and doubled', () => {
    const half = done(withBeats(), halvePulse(withBeats(), 'm'));
    expect(times(half)).toEqual([1, 2, 3, 4, 5]);
    expect(bars(half)).toEqual([0, 4]);
    const double = done(withBeats(3), doublePulse(withBeats(3), 'm', countingIds('n')));
    expect(times(double)).toEqual([1, 1.25, 1.5, 1.75, 2]);
  });

  it('keeps the beat that begins a bar when it is halved after an upbeat', () => {
    const upbeat = done(withBeats(), shiftBars(withBeats(), 'm', 1));
    expect(bars(upbeat)).toEqual([1, 5]);
    expect(times(done(upbeat, halvePulse(upbeat, 'm')))).toEqual([1.5, 2.5, 3.5, 4.5]);
  });

  it('is counted in another metre, and from another beat', () => {
    const three = done(withBeats(), setMetre(withBeats(), 'm', '3/4'));
    expect(bars(three)).toEqual([0, 3, 6]);
    expect(bars(done(three, setFirstBar(three, 'b4')))).toEqual([1, 4, 7]);
  });

  it('is shifted by half a beat where the off-beats were taken', () => {
    expect(times(done(withBeats(3), shiftHalfBeat(withBeats(3), 'm')))).toEqual([1.25, 1.75, 2.25]);
  });

  it('follows a beat that is moved: all of it, or up to the next fixed ones', () => {
    const free = done(withBeats(5), moveBeat(withBeats(5), 'b2', s(2.1)));
    expect(times(free)).toEqual([1.1, 1.6, 2.1, 2.6, 3.1]);
    expect(free.beats.b2?.fixed).toBe(true);
    const pinned = done(free, moveBeat(free, 'b4', s(3.3)));
    expect(times(pinned)).toEqual([1.1, 1.6, 2.1, 2.7, 3.3]);
    const note = moveBeat(pinned, 'b3', s(9)).note;
    expect(note).toBe('Stopped at a fixed beat.');
  });

  it('is found again around what was fixed', () => {
    const range = { start: s(1.4), end: s(2.1) };
    const fixed = done(withBeats(), fixBeats(withBeats(), 'm', range, true));
    const found = [1, 1.52, 2.03, 2.5, 3].map((at) => ({ at: s(at), bar: null }));
    expect(times(done(fixed, setPulse(fixed, 'm', found, countingIds('n'))))).toEqual([
      1, 1.5, 2, 2.5, 3,
    ]);
  });

  it('is cleared in a stretch, and drawn anew with its bars going on', () => {
    const inside = beatsInOrder(withBeats(), 'm').filter(({ at }) => at >= s(2) && at < s(3.1));
    const ids = inside.map(({ id }) => id);
    const clear = done(withBeats(), removeBeats(withBeats(), ids));
    expect(times(clear)).toEqual([1, 1.5, 3.5, 4, 4.5, 5]);
    const taps = [3, 3.4, 3.8, 4.2].map(s);
    const drawn = done(withBeats(), redrawBeats(withBeats(), 'm', taps, countingIds('n')));
    expect(times(drawn)).toEqual([1, 1.5, 2, 2.5, 3, 3.4, 3.8, 4.2, 4.5, 5]);
    expect(bars(drawn).slice(0, 2)).toEqual([0, 4]);
  });
});
