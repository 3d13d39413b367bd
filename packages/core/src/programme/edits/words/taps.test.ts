import { fromSeconds, toSeconds } from '../../../time/ticks.ts';
import { USUAL_DELAY } from '../../../listen/pulse/taps.ts';
import { beatsInOrder, marksInOrder } from '../../order.ts';
import type { Programme } from '../../programme.ts';
import { at25, countingIds, programmeWithCues } from '../../samples.ts';
import { done, soundOfLength, withBeats } from '../done.samples.ts';
import { setSound } from '../programme/sounds.ts';
import { editOfTaps, tapsOfPresses } from './taps.ts';

describe('presses', () => {
  const quiet = withBeats(0);

  it('lose the usual delay where the sound has no clear beginnings, and so does their release', () => {
    const presses = [
      { at: 2, until: 2.5 },
      { at: 1, until: null },
    ];
    const { taps, delay } = tapsOfPresses(quiet, presses, undefined, 1);
    expect(delay).toBeCloseTo(USUAL_DELAY, 9);
    expect(taps.map(({ at }) => toSeconds(at))).toEqual([
      expect.closeTo(1 - USUAL_DELAY, 3),
      expect.closeTo(2 - USUAL_DELAY, 3),
    ]);
    expect(taps[0]?.until).toBeNull();
    expect(toSeconds(taps[1]?.until ?? fromSeconds(0))).toBeCloseTo(2.5 - USUAL_DELAY, 3);
  });

  it('go to beginnings of the sound, wherever it is laid', () => {
    const laid = done(quiet, setSound(quiet, 'm', { at: fromSeconds(10) }, countingIds()));
    const onsets = new Uint8Array(800);
    for (const second of [1, 2.13, 3.31, 4.07]) onsets[Math.round(second * 100)] = 200;
    const presses = [1, 2.13, 3.31, 4.07].map((second) => ({
      at: 10 + second + 0.08,
      until: null,
    }));
    const { taps } = tapsOfPresses(laid, presses, { onsets, firstMiddle: 0 }, 1);
    expect(taps.map(({ at }) => toSeconds(at))).toEqual(
      [11, 12.13, 13.31, 14.07].map((second) => expect.closeTo(second, 1)),
    );
  });

  it('are never before the programme', () => {
    const { taps } = tapsOfPresses(quiet, [{ at: 0.01, until: null }], undefined, 1);
    expect(taps[0]?.at).toBe(0);
  });
});

describe('taps', () => {
  const cues = programmeWithCues([
    ['Heave and\nhold', 0, 50],
    ['the chain.', 50, 100],
  ]);
  const taps = [10, 20, 30].map((frame) => ({ at: at25(frame), until: null }));
  const to = { strand: 's', firstCue: 'c1', beatsOf: 'm' };
  const tapped = (programme: Programme, tapFor: Parameters<typeof editOfTaps>[1], some = taps) => {
    const edit = editOfTaps(programme, tapFor, some, to, countingIds());
    return { edit, after: done(programme, edit) };
  };

  it('become marks', () => {
    const { edit, after } = tapped(cues, 'marks');
    expect(edit.name).toBe('Tap 3 marks');
    expect(marksInOrder(after).map(({ at }) => at)).toEqual(taps.map(({ at }) => at));
    expect(tapped(cues, 'marks', taps.slice(0, 1)).edit.name).toBe('Tap a mark');
  });

  it('start cues, words and the first words of lines', () => {
    const { after } = tapped(cues, 'cues', taps.slice(0, 2));
    expect([after.cues['c1']?.start, after.cues['c2']?.start]).toEqual([at25(10), at25(20)]);
    const starts = (tapFor: 'words' | 'lines', some: typeof taps) =>
      tapped(cues, tapFor, some).after.cues['c1']?.words.map(({ start }) => start);
    expect(starts('words', taps)).toEqual(taps.map(({ at }) => at));
    const [heave, , hold] = starts('lines', [taps[0], taps[2]] as typeof taps) ?? [];
    expect([heave, hold]).toEqual([at25(10), at25(30)]);
  });

  it('become beats of the material, in its own time', () => {
    const base = { ...withBeats(0), materials: { m: soundOfLength('m', 60) } };
    const laid = done(base, setSound(base, 'm', { at: at25(15) }, countingIds()));
    // The first tap is before the sound begins.
    const { after } = tapped(laid, 'beats');
    expect(beatsInOrder(after, 'm').map(({ at }) => at)).toEqual([at25(5), at25(15)]);
  });

  it('say where there is nothing to give them to', () => {
    const edit = editOfTaps(cues, 'cues', taps, { ...to, firstCue: undefined }, countingIds());
    expect(edit).toMatchObject({ changes: [], note: expect.stringContaining('no cue') });
  });
});
