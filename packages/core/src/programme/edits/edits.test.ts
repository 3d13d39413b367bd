import fc from 'fast-check';
import { plainText } from '../../text/lines.ts';
import { fromSeconds, ticks } from '../../time/ticks.ts';
import { nearestFrame } from '../../time/frameRate.ts';
import { apply } from '../record/apply.ts';
import { invert, type Edit } from '../record/change.ts';
import { cuesInOrder } from '../order.ts';
import type { Material, Programme } from '../programme.ts';
import { firstOverlap, rebase } from '../record/rebase.ts';
import { at25, countingIds, programmeWithCues, programmeWithPieces } from '../samples.ts';
import { addCue } from './cues/addCue.ts';
import { anyEdit } from './anyEdit.samples.ts';
import { bare, offFrames } from './done.samples.ts';
import { closeGaps } from './cues/closeGaps.ts';
import { joinCues } from './cues/joinCues.ts';
import { moveCues } from './cues/moveCues.ts';
import { moveSeam } from './cues/moveSeam.ts';
import { cuesFromPieces, setPieces } from './found/pieces.ts';
import { emphasise } from './text/emphasise.ts';
import { deleteCues, setStrandStyle, setStyle, setText } from './text/reword.ts';
import { addMaterial, removeMaterial, setFacts } from './programme/setFacts.ts';
import { splitCue } from './cues/splitCue.ts';
import { trimCue } from './cues/trimCue.ts';

const ferry = programmeWithCues([
  ['The ferry wakes first,', 0, 50],
  ['then the tide.', 50, 100],
  ['Slack water.', 125, 150],
]);

/** Where the cues stand after an edit, in frames, with their text. */
const outcome = (programme: Programme, edit: Edit) =>
  cuesInOrder(apply(programme, edit.changes), 's').map((cue) => [
    plainText(cue.text),
    cue.start / at25(1),
    cue.end / at25(1),
  ]);
const times = (programme: Programme, edit: Edit) =>
  outcome(programme, edit).map(([, start, end]) => [start, end]);

describe('adding a cue', () => {
  const range = (start: number, end: number) => ({ start: at25(start), end: at25(end) });

  it('lands on frames', () => {
    const edit = addCue(
      ferry,
      's',
      { start: ticks(at25(101) + 5), end: at25(110) },
      'Low',
      countingIds(),
    );
    expect(outcome(ferry, edit)[2]).toEqual(['Low', 101, 110]);
  });

  it('is cut short at the next cue, and says so', () => {
    const edit = addCue(ferry, 's', range(110, 140), '', countingIds());
    expect(times(ferry, edit)[2]).toEqual([110, 125]);
    expect(edit.note).toBe('Stopped at the next cue.');
  });

  it('adds nothing where a cue is', () => {
    const edit = addCue(ferry, 's', range(60, 70), '', countingIds());
    expect(edit.changes).toEqual([]);
    expect(edit.note).toBeDefined();
  });
});

describe('moving cues', () => {
  it('keeps their distance and stops them together at a neighbour', () => {
    const edit = moveCues(ferry, ['c1', 'c2'], at25(40));
    expect(times(ferry, edit)).toEqual([
      [25, 75],
      [75, 125],
      [125, 150],
    ]);
    expect(edit.note).toBe('Stopped at the neighbouring cue.');
  });

  it('does not go before the start', () => {
    expect(moveCues(ferry, ['c1'], at25(-10)).changes).toEqual([]);
  });

  it('takes word times along', () => {
    const word = { text: 'Slack', start: at25(126), end: at25(130), source: 'heard' as const };
    const timed = apply(ferry, [
      { entity: 'cue', id: 'c3', was: { words: [] }, becomes: { words: [word] } },
    ]);
    const moved = apply(timed, moveCues(timed, ['c3'], at25(5)).changes);
    expect(moved.cues.c3?.words[0]).toMatchObject({ start: at25(131), end: at25(135) });
  });
});

describe('trimming', () => {
  it('stops at the neighbour', () => {
    const edit = trimCue(ferry, 'c2', 'end', at25(140));
    expect(times(ferry, edit)[1]).toEqual([50, 125]);
    expect(edit.note).toBe('Stopped at the neighbouring cue.');
  });

  it('leaves one frame at least', () => {
    const edit = trimCue(ferry, 'c3', 'start', at25(170));
    expect(times(ferry, edit)[2]).toEqual([149, 150]);
    expect(edit.note).toBe('A cue lasts one frame at least.');
  });
});

describe('moving a seam', () => {
  it('moves both cues and leaves their outer edges', () => {
    expect(times(ferry, moveSeam(ferry, 'c1', 'c2', at25(60))).slice(0, 2)).toEqual([
      [0, 60],
      [60, 100],
    ]);
  });

  it('never squeezes a cue below the shortest', () => {
    expect(times(ferry, moveSeam(ferry, 'c1', 'c2', at25(9999)))[1]).toEqual([99, 100]);
  });

  it('does nothing where the two do not touch', () => {
    expect(moveSeam(ferry, 'c2', 'c3', at25(110)).changes).toEqual([]);
  });
});

describe('splitting', () => {
  it('divides the text by reading weight', () => {
    expect(outcome(ferry, splitCue(ferry, 'c1', at25(25), countingIds())).slice(0, 2)).toEqual([
      ['The ferry', 0, 25],
      ['wakes first,', 25, 50],
    ]);
  });

  it('divides the text where the words are said', () => {
    const said = [30, 33, 36, 40].map((start, place) => ({
      text: ['The', 'ferry', 'wakes', 'first,'][place] as string,
      start: at25(start),
      end: at25(start + 2),
      source: 'heard' as const,
    }));
    const timed = apply(ferry, [
      { entity: 'cue', id: 'c1', was: { words: [] }, becomes: { words: said } },
    ]);
    const edit = splitCue(timed, 'c1', at25(32), countingIds());
    expect(outcome(timed, edit)[0]).toEqual(['The', 0, 32]);
    expect(apply(timed, edit.changes).cues.id1?.words).toHaveLength(3);
  });

  it('divides the text at the typing mark where that is given', () => {
    expect(outcome(ferry, splitCue(ferry, 'c1', at25(25), countingIds(), 16))[1]?.[0]).toBe(
      'first,',
    );
  });

  it('does not tear a single word', () => {
    const one = programmeWithCues([['Skerrymoor', 0, 50]]);
    expect(outcome(one, splitCue(one, 'c1', at25(40), countingIds()))).toEqual([
      ['Skerrymoor', 0, 40],
      ['', 40, 50],
    ]);
  });

  it('does nothing outside the cue', () => {
    const edit = splitCue(ferry, 'c1', at25(50), countingIds());
    expect(edit.changes).toEqual([]);
    expect(edit.note).toMatch(/playhead/);
  });
});

describe('joining', () => {
  it('puts short texts on one line', () => {
    expect(outcome(ferry, joinCues(ferry, ['c2', 'c3']))[1]).toEqual([
      'then the tide. Slack water.',
      50,
      150,
    ]);
  });

  it('keeps long texts on lines of their own', () => {
    const long = programmeWithCues([
      ['the ferry wakes before the village does,', 0, 50],
      ['and the gulls before the ferry.', 50, 100],
    ]);
    expect(outcome(long, joinCues(long, ['c1', 'c2']))[0]?.[0]).toContain('\n');
  });

  it('refuses cues with another between them', () => {
    expect(joinCues(ferry, ['c1', 'c3']).note).toMatch(/follow each other/);
  });
});

describe('rewording', () => {
  it('keeps italics where the text stayed', () => {
    const slanted = apply(ferry, emphasise(ferry, [{ cue: 'c3' }], 'italic').changes);
    const edited = apply(slanted, setText(slanted, 'c3', 'Slack water again.').changes);
    expect(edited.cues.c3?.text).toEqual([[{ text: 'Slack water again.', italic: true }]]);
    expect(emphasise(edited, [{ cue: 'c3' }], 'italic').name).toBe('Set upright');
  });

  it('sets style and gives it back to the strand', () => {
    const blue = apply(ferry, setStyle(ferry, ['c1', 'c2'], { colour: '#aaccff' }).changes);
    expect(blue.cues.c2?.style).toEqual({ colour: '#aaccff' });
    const back = apply(blue, setStyle(blue, ['c2'], { colour: undefined }).changes);
    expect(back.cues.c2?.style).toEqual({});
    expect(
      apply(ferry, setStrandStyle(ferry, 's', { size: 60 }).changes).strands.s?.style.size,
    ).toBe(60);
  });

  it('deletes many in one step', () => {
    expect(deleteCues(ferry, ['c1', 'c3']).name).toBe('Delete 2 cues');
  });
});

describe('closing gaps', () => {
  it('closes those up to the limit', () => {
    expect(times(ferry, closeGaps(ferry, 's', fromSeconds(1)))[1]).toEqual([50, 125]);
  });

  it('leaves longer ones, and says so', () => {
    expect(closeGaps(ferry, 's', fromSeconds(0.5))).toMatchObject({
      changes: [],
      note: /no gap/ as never,
    });
  });
});

describe('cues from pieces', () => {
  it('reach from the frame before to the frame after and never overlap', () => {
    const spoken = programmeWithPieces([
      [0.5, 1.01],
      [1.03, 2],
    ]);
    expect(times(spoken, cuesFromPieces(spoken, 's', countingIds()))).toEqual([
      [12, 26],
      [26, 50],
    ]);
  });

  it('leave alone what has a cue already', () => {
    const spoken = programmeWithPieces([[0.5, 1.5]]);
    const once = apply(spoken, cuesFromPieces(spoken, 's', countingIds()).changes);
    expect(cuesFromPieces(once, 's', countingIds('again')).changes).toEqual([]);
  });

  it('follow pieces that are found again', () => {
    const spoken = programmeWithPieces([[0.5, 1.5]]);
    const again = setPieces(
      spoken,
      'm',
      [{ start: fromSeconds(3), end: fromSeconds(4) }],
      countingIds(),
    );
    expect(Object.values(apply(spoken, again.changes).pieces)).toHaveLength(1);
  });
});

describe('material', () => {
  const film: Material = {
    id: 'film',
    hash: 'f00d',
    name: 'skerrymoor-cut3.mp4',
    kind: 'film',
    bytes: 1000,
    length: fromSeconds(402),
    sound: { sampleRate: 48000, channels: 2, codec: 'aac' },
    picture: {
      width: 1280,
      height: 720,
      frameRate: { num: 24, den: 1, dropFrame: false },
      codec: 'avc',
      shown: true,
    },
    family: null,
    remarks: [],
  };

  it('sets up the programme the first time', () => {
    const after = apply(ferry, addMaterial(ferry, film).changes);
    expect(after.facts).toMatchObject({
      frame: { width: 1280, height: 720 },
      frameRate: { num: 24 },
      length: fromSeconds(402),
      sound: 'film',
      picture: 'film',
    });
    expect(after.strands.s?.style.size).toBe(36);
  });

  it('leaves what the editor has set', () => {
    const set = apply(ferry, setFacts(ferry, { setBy: 'editor' }).changes);
    expect(apply(set, addMaterial(set, film).changes).facts.frame.height).toBe(1080);
  });

  it('goes with its pieces and its use', () => {
    const spoken = { ...programmeWithPieces([[0, 1]]), materials: { m: { ...film, id: 'm' } } };
    const after = apply(spoken, removeMaterial(spoken, 'm').changes);
    expect(after).toMatchObject({ materials: {}, pieces: {}, facts: { sound: null } });
  });
});

describe('any sequence of edits', () => {
  const numbers = fc.array(fc.nat(600), { minLength: 4, maxLength: 4 });
  const start = {
    ...programmeWithPieces([
      [3, 5],
      [5.1, 9],
      [30, 33],
    ]),
    cues: ferry.cues,
  };

  it('never overlaps, stays on frames, and is undone to the very same programme', () => {
    fc.assert(
      fc.property(fc.array(numbers, { maxLength: 30 }), (script) => {
        const newId = countingIds('n');
        let programme: Programme = start;
        const done: Edit[] = [];
        for (const step of script) {
          const edit = anyEdit(programme, newId, step);
          programme = apply(programme, edit.changes);
          done.push(edit);
          expect(firstOverlap(programme)).toBeUndefined();
        }
        expect(offFrames(programme)).toEqual([]);
        for (const edit of done.reverse()) programme = apply(programme, invert(edit.changes));
        expect(bare(programme)).toEqual(bare(start));
      }),
      { numRuns: 300 },
    );
  });
});

describe('two editors at once', () => {
  const numbers = fc.array(fc.nat(600), { minLength: 4, maxLength: 4 });
  const script = fc.array(numbers, { maxLength: 8 });
  const start = {
    ...programmeWithPieces([
      [3, 5],
      [9, 12],
    ]),
    cues: ferry.cues,
  };
  const play = (steps: number[][], prefix: string): Edit[] => {
    const newId = countingIds(prefix);
    let programme: Programme = start;
    return steps.map((step) => {
      const edit = anyEdit(programme, newId, step);
      programme = apply(programme, edit.changes);
      return edit;
    });
  };

  it('end with no overlap, on frames, and what was put on top is undone to what was under it', () => {
    fc.assert(
      fc.property(script, script, (theirs, mine) => {
        const under = play(theirs, 'theirs').reduce(
          (programme: Programme, edit) => apply(programme, edit.changes),
          start,
        );
        let both = under;
        const done: Edit[] = [];
        for (const edit of play(mine, 'mine')) {
          const { changes } = rebase(both, edit.changes);
          both = apply(both, changes);
          done.push({ name: edit.name, changes });
          expect(firstOverlap(both)).toBeUndefined();
        }
        for (const cue of Object.values(both.cues)) {
          expect(nearestFrame(cue.start, both.facts.frameRate)).toBe(cue.start);
          expect(cue.end).toBeGreaterThan(cue.start);
        }
        for (const edit of done.reverse()) both = apply(both, invert(edit.changes));
        expect(bare(both)).toEqual(bare(under));
      }),
      { numRuns: 200 },
    );
  });
});
