import { fromSeconds, toSeconds, type Ticks } from '../../../time/ticks.ts';
import { gainAt, heardBeats, heardHits, heardPieces, soundOf, soundsHeard } from '../../heard.ts';
import type { Programme } from '../../programme.ts';
import { at25, countingIds } from '../../samples.ts';
import { done, soundOfLength, withBeats } from '../done.samples.ts';
import {
  addSound,
  beginWith,
  hearAlone,
  isAlone,
  moveSound,
  removeSound,
  setSound,
} from './sounds.ts';

const s = fromSeconds;

describe('sounds', () => {
  const base = withBeats(3);
  const two: Programme = { ...base, materials: { ...base.materials, n: soundOfLength('n', 20) } };
  const ids = countingIds('x');

  it('begin with a beat, and take what was found along', () => {
    const begun = done(base, beginWith(base, 'm', s(1), ids));
    expect(heardBeats(begun).map(({ at }) => toSeconds(at))).toEqual([0, 0.5, 1]);
    const sound = soundOf(begun, 'm');
    expect(sound?.fadeIn).toBeGreaterThan(0);
    expect(gainAt(sound as NonNullable<typeof sound>, 0 as Ticks)).toBe(0);
  });

  it('move by frames, and are cut where they would begin before the programme', () => {
    const later = done(base, moveSound(base, 'm', at25(10), ids));
    expect(heardBeats(later)[0]?.at).toBe(s(1.4));
    const earlier = moveSound(base, 'm', at25(-30), ids);
    expect(heardBeats(done(base, earlier)).map(({ at }) => toSeconds(at))).toEqual([0.3, 0.8]);
    expect(earlier.note).toContain('not heard');
  });

  it('can be heard alone, and all together again', () => {
    const both = done(two, addSound(two, 'n', ids));
    const muted = (programme: Programme) => soundsHeard(programme).map((sound) => sound.muted);
    expect([isAlone(both, 'n'), isAlone(base, 'm')]).toEqual([false, false]);
    const alone = done(both, hearAlone(both, 'n', ids));
    expect(muted(alone)).toEqual([true, false]);
    expect([isAlone(alone, 'n'), isAlone(alone, 'm')]).toEqual([true, false]);
    expect(muted(done(alone, hearAlone(alone, 'm', ids)))).toEqual([false, true]);
    expect(muted(done(alone, hearAlone(alone, 'n', ids)))).toEqual([false, false]);
  });

  it('are heard together, each with its own pieces', () => {
    const both = done(two, addSound(two, 'n', ids));
    expect(soundsHeard(both).map(({ material: of }) => of)).toEqual(['m', 'n']);
    const pieces = {
      a: { id: 'a', material: 'n', start: s(2), end: s(3) },
      b: { id: 'b', material: 'm', start: s(1), end: s(1.5) },
    };
    const hits = { h: { id: 'h', material: 'n', start: s(1), end: s(2), level: 0, kept: false } };
    const found = { ...both, pieces, hits };
    expect(heardPieces(found).map(({ id }) => id)).toEqual(['b', 'a']);
    expect(heardHits(found)).toHaveLength(1);
    expect(soundsHeard(done(found, removeSound(found, 'n')))).toHaveLength(1);
  });

  it('have a level, fades and a mute that fit', () => {
    const part = { level: -6, fadeIn: s(2), fadeOut: s(900), from: s(10) };
    const set = done(two, setSound(two, 'm', part, ids));
    const sound = soundOf(set, 'm') as NonNullable<ReturnType<typeof soundOf>>;
    expect(sound.fadeOut).toBe(s(50));
    expect(gainAt(sound, s(1))).toBeCloseTo(0.5 * 10 ** (-6 / 20), 6);
    expect(gainAt({ ...sound, muted: true }, s(1))).toBe(0);
    expect(gainAt(sound, s(51))).toBe(0);
  });
});
