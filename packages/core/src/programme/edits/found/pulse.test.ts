import { fromSeconds, toSeconds } from '../../../time/ticks.ts';
import { beatsInOrder } from '../../order.ts';
import type { Programme } from '../../programme.ts';
import { update } from '../../record/change.ts';
import { countingIds, sampleMaterial } from '../../samples.ts';
import { done, withBeats } from '../done.samples.ts';
import {
  doublePulse,
  fixBeats,
  halvePulse,
  moveBeat,
  pinBar,
  redrawBeats,
  removeBeats,
  setMetre,
  setPulse,
  shiftBars,
  shiftHalfBeat,
  sureOfBars,
  withOtherBars,
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
    expect(bars(done(three, pinBar(three, 'b4')))).toEqual([1, 4, 7]);
  });

  it('is counted anew from each bar line that is pinned, and goes on in the metre that is said', () => {
    const programme = withBeats(24);
    const one = done(programme, pinBar(programme, 'b6'));
    expect(bars(one)).toEqual([2, 6, 10, 14, 18, 22]);
    const two = done(one, pinBar(one, 'b16'));
    expect(bars(two).filter((at) => at >= 14)).toEqual([14, 16, 20]);
    const three = done(two, pinBar(two, 'b16', '3/4'));
    expect(bars(three).filter((at) => at >= 14)).toEqual([14, 16, 19, 22]);
    expect(three.beats.b19?.bar).toBe('3/4');
    const free = done(one, pinBar(one, 'b6'));
    expect(free.beats.b6?.pin).toBeNull();
    expect(bars(free)).toEqual([2, 6, 10, 14, 18, 22]);
  });

  it('tells which materials have other bar lines, and none where sections come along', () => {
    const programme = withBeats(24);
    const pin = pinBar(programme, 'b6');
    expect(withOtherBars(programme, pin)).toEqual(['m']);
    expect(withOtherBars(programme, removeBeats(programme, ['b1']))).toEqual(['m']);
    expect(
      withOtherBars(programme, fixBeats(programme, 'm', { start: s(0), end: s(9) }, true)),
    ).toEqual([]);
    const sections = update('material', sampleMaterial('m'), { sections: [] });
    expect(withOtherBars(programme, { ...pin, changes: [...pin.changes, ...sections] })).toEqual(
      [],
    );
  });

  it('settles by what was heard around a bar line that is pinned', () => {
    // Heard: bars of four that begin with each second beat, and from the twentieth on bars of three.
    const heard = (at: number) =>
      at < 20 ? [at % 4 === 2 ? 70 : 20, 5, 5, 90] : [at % 3 === 2 ? 80 : 10, 5, 90, 5];
    const beats = Object.fromEntries(
      Object.entries(withBeats(44).beats).map(([id, beat]) => [
        id,
        { ...beat, opinion: heard(Number(id.slice(1))) },
      ]),
    );
    const programme = { ...withBeats(44), beats };
    const pinned = done(programme, pinBar(programme, 'b4'));
    expect(bars(pinned).slice(0, 5)).toEqual([0, 4, 8, 12, 16]);
    expect(bars(pinned).slice(-4)).toEqual([32, 35, 38, 41]);
    const sure = sureOfBars(beatsInOrder(pinned, 'm')) ?? [];
    expect(sure).toHaveLength(bars(pinned).length);
    expect(sure[1]).toBe(1);
    expect(Math.min(...sure.slice(6))).toBeGreaterThan(0.9);
    expect(sureOfBars(beatsInOrder(withBeats(12), 'm'))).toBeUndefined();
    const whole = done(pinned, setMetre(pinned, 'm', '4/4'));
    expect(bars(whole)).toEqual([0, 4, 8, 12, 16, 20, 24, 28, 32, 36, 40]);
    const again = setPulse(
      pinned,
      'm',
      beatsInOrder(programme, 'm').map(({ at, opinion }) => ({
        at: s(toSeconds(at) + 0.01),
        bar: null,
        opinion: opinion ?? null,
      })),
      countingIds('n'),
    );
    expect(bars(done(pinned, again)).slice(0, 5)).toEqual([0, 4, 8, 12, 16]);
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
