import { cuesInOrder, marksInOrder } from '@cadence/core/programme/order.ts';
import { newStrand } from '@cadence/core/programme/defaults.ts';
import type { Cue, Programme } from '@cadence/core/programme/programme.ts';
import { at25, programmeWithCues, sampleMaterial } from '@cadence/core/programme/samples.ts';
import { cueActions } from './cueActions.ts';
import { madeUpDesk } from './desk.samples.ts';
import { handActions } from './handActions.ts';
import { strandActions } from './strandActions.ts';
import { picked, selected } from './view.ts';

const tide = programmeWithCues([
  ['The ferry wakes first,', 50, 100],
  ['then the tide.', 100, 150],
  ['Slack water.', 190, 225],
]);

/** With a second strand, and beats, pieces and hits in a sound that begins with the programme. */
const full: Programme = {
  ...tide,
  facts: { ...tide.facts, sound: 'm' },
  materials: { m: sampleMaterial('m') },
  strands: { ...tide.strands, t: { ...newStrand('lyric', 't', 1080), place: 1 } },
  pieces: Object.fromEntries(
    [10, 60].map((frame, at) => [
      `p${at}`,
      { id: `p${at}`, material: 'm', start: at25(frame), end: at25(frame + 30) },
    ]),
  ),
  beats: Object.fromEntries(
    [0, 12, 24, 36, 48, 60].map((frame, at) => [
      `b${at}`,
      { id: `b${at}`, material: 'm', at: at25(frame), bar: at % 4 ? null : '4/4', fixed: false },
    ]),
  ),
};

function cueDesk(programme = tide) {
  const desk = madeUpDesk(programme);
  return { ...desk, act: cueActions(desk.ports) };
}

describe('what is done with cues', () => {
  test('walks from the playhead, and on from the selected cue', () => {
    const { act, view, player } = cueDesk();
    player.time = at25(120);
    act.selectNext();
    expect([view().selection, player.time]).toEqual([['c2'], at25(100)]);
    act.selectNext();
    act.selectNext();
    expect([view().selection, player.time]).toEqual([['c3'], at25(190)]);
    act.extendBefore();
    expect(view().selection).toEqual(['c3', 'c2']);
    act.selectAll();
    expect(view().selection).toEqual(['c1', 'c2', 'c3']);
    act.selectNone();
    expect(view().selection).toEqual([]);
  });

  test('gives the spoken word a colour in the strand in hand alone, and takes it away again', () => {
    const { act, programme, ports, said } = cueDesk(full);
    const colours = () =>
      Object.values(programme().strands).map(({ style }) => style.saidColour ?? null);
    act.toggleLight();
    expect(colours()).toEqual(['#f4d35e', null]);
    expect(said.at(-1)).toMatch(/the spoken word is highlighted/);
    ports.undo();
    expect(colours()).toEqual([null, null]);
    act.toggleLight();
    act.toggleLight();
    expect(colours()).toEqual([null, null]);
  });

  test('works on the cue under the playhead where none is selected, and says so where there is none', () => {
    const { act, programme, player, said, names } = cueDesk();
    act.nudge(2);
    expect([said, names()]).toEqual([['Select a cue first.'], []]);
    player.time = at25(200);
    act.nudge(2);
    expect(programme().cues['c3']?.start).toBe(at25(192));
    act.undo();
    expect(programme()).toEqual(tide);
  });

  test('adds a cue at the playhead, selects it and lets it be written, unless the programme plays', () => {
    const { act, programme, view, player, written } = cueDesk();
    player.time = at25(240);
    act.addCue();
    const made = cuesInOrder(programme(), 's').at(-1);
    expect([made?.start, made?.end]).toEqual([at25(240), at25(290)]);
    expect(view().selection).toEqual([made?.id]);
    expect(written).toEqual([made?.id]);
    player.time = at25(300);
    player.state().playing = true;
    act.addCue();
    expect(cuesInOrder(programme(), 's').at(-1)?.start).toBe(at25(300));
    expect(written).toHaveLength(1);
  });

  test('goes to the ends of the cue at hand, and of the programme where there is none', () => {
    const { act, player, ports, programme } = cueDesk();
    ports.dispatch(selected(['c1']));
    const { start, end } = programme().cues['c1'] as Cue;
    const went = [act.toCueStart, act.toCueEnd].map((go) => (go(), player.time));
    ports.dispatch(selected([]));
    player.time = at25(2);
    act.toCueEnd();
    expect([...went, player.time]).toEqual([start, end, programme().facts.length]);
    player.time = at25(2);
    act.toCueStart();
    expect(player.time).toBe(0);
  });

  test('selects what comes after what it deletes', () => {
    const { act, programme, view, ports } = cueDesk();
    ports.dispatch(selected(['c1', 'c2']));
    act.remove();
    expect(cuesInOrder(programme(), 's').map(({ id }) => id)).toEqual(['c3']);
    expect(view().selection).toEqual(['c3']);
  });

  test('joins the selected cues, or one with the next', () => {
    const { act, programme, ports } = cueDesk();
    ports.dispatch(selected(['c2']));
    act.join();
    expect(cuesInOrder(programme(), 's')).toHaveLength(2);
    expect(programme().cues['c2']?.end).toBe(at25(225));
  });

  test('keeps gaps, and stays until the next where there is one', () => {
    const { act, programme, ports, said } = cueDesk();
    act.closeGaps();
    expect(said).not.toEqual([]);
    ports.dispatch(selected(['c2']));
    act.holdCues();
    expect(programme().cues['c2']?.end).toBe(at25(190));
    act.holdCues();
    expect(said.at(-1)).toBe('Each cue already lasts until the next.');
  });

  test('ties only words that have times', () => {
    const { act, ports, said, names } = cueDesk();
    ports.dispatch(selected(['c1']));
    act.tieOrFree();
    expect(said).toEqual(['The words here have no times yet. Weave them first (Z).']);
    expect(names()).toEqual([]);
  });

  test('selects everything from a cue on', () => {
    const { act, view, ports } = cueDesk();
    ports.dispatch(selected(['c2']));
    act.selectFromHere('end');
    expect(view().selection).toEqual(['c2', 'c3']);
    ports.dispatch(selected(['c2']));
    act.selectFromHere('start');
    expect(view().selection).toEqual(['c1', 'c2']);
  });

  test('moves the playhead by frames, never out of the programme', () => {
    const { act, player, programme } = cueDesk();
    act.stepFrames(-3);
    expect(player.time).toBe(0);
    act.stepFrames(5);
    expect(player.time).toBe(at25(5));
    act.toEnd();
    act.stepFrames(9);
    expect(player.time).toBe(programme().facts.length);
  });

  test('goes to the beginning of a cue before it goes to the one before', () => {
    const { act, player, view, ports } = cueDesk();
    ports.dispatch(selected(['c2']));
    player.time = at25(130);
    act.toCueBefore();
    expect([player.time, view().selection]).toEqual([at25(100), ['c2']]);
    act.toCueBefore();
    expect([player.time, view().selection]).toEqual([at25(50), ['c1']]);
  });

  test('widens and narrows rows only as far as they go', () => {
    const { act, view } = cueDesk();
    const before = view().secondsARow;
    act.widerRow(1);
    expect(view().secondsARow).toBeGreaterThan(before);
    for (let times = 0; times < 20; times++) act.widerRow(-1);
    expect(view().secondsARow).toBe(1);
  });
});

describe('what is done with what is in hand', () => {
  const handDesk = (hand: Parameters<ReturnType<typeof handActions>['hold']['setHand']>[0]) => {
    const desk = madeUpDesk(full);
    const actions = handActions(desk.ports);
    actions.hold.setHand(hand);
    return { ...desk, ...actions };
  };

  test('picks the next from the playhead on, and on from what is picked', () => {
    const { hold, view, player } = handDesk('pieces');
    player.time = at25(30);
    hold.next();
    expect([view().picked, player.time]).toEqual([['p1'], at25(60)]);
    hold.before();
    expect(view().picked).toEqual(['p0']);
    hold.extendNext();
    expect(view().picked).toEqual(['p0', 'p1']);
    hold.none();
    expect(view().picked).toEqual([]);
  });

  test('drops a mark at the playhead and takes marks in hand', () => {
    const { hold, programme, view, player } = handDesk('cues');
    player.time = at25(33);
    hold.dropMark();
    const [mark] = marksInOrder(programme());
    expect(mark?.at).toBe(at25(33));
    expect([view().hand, view().picked]).toEqual(['marks', [mark?.id]]);
  });

  test('asks for something to be picked first', () => {
    const { hold, said, names } = handDesk('pieces');
    hold.remove();
    expect([said, names()]).toEqual([['Pick a piece first.'], []]);
  });

  test('removes what is picked and picks what comes after it', () => {
    const { hold, programme, view, ports } = handDesk('pieces');
    ports.dispatch(picked(['p0']));
    hold.remove();
    expect(Object.keys(programme().pieces)).toEqual(['p1']);
    expect(view().picked).toEqual(['p1']);
  });

  test('trims a piece to the playhead, and a mark goes there whole', () => {
    const { hold, programme, player, ports } = handDesk('pieces');
    ports.dispatch(picked(['p1']));
    player.time = at25(70);
    hold.trim('start');
    expect(programme().pieces['p1']?.start).toBe(at25(70));
    hold.dropMark();
    player.time = at25(75);
    hold.trim('end');
    expect(marksInOrder(programme())[0]?.at).toBe(at25(75));
  });

  test('begins a bar at the beat nearest to the playhead', () => {
    const { hold, programme, player } = handDesk('beats');
    player.time = at25(13);
    hold.firstBar();
    expect(programme().beats['b1']?.bar).not.toBeNull();
    expect(programme().beats['b0']?.bar).toBeNull();
  });

  test('fixes the picked beats, and sets them free again', () => {
    const { hold, programme, ports } = handDesk('beats');
    ports.dispatch(picked(['b1', 'b2']));
    hold.fix();
    expect(['b0', 'b1', 'b2'].map((id) => programme().beats[id]?.fixed)).toEqual([
      false,
      true,
      true,
    ]);
    hold.fix();
    expect(programme().beats['b1']?.fixed).toBe(false);
  });

  test('plays what is picked, an instant with a little after it', () => {
    const { hold, played, ports } = handDesk('beats');
    ports.dispatch(picked(['b1']));
    hold.play();
    expect(played).toEqual([{ start: at25(12), end: at25(27) }]);
  });

  test('says where there is no pulse', () => {
    const desk = madeUpDesk(tide);
    handActions(desk.ports).hold.halve();
    expect(desk.said[0]).toMatch(/no beats yet/);
  });
});

describe('what is done with strands', () => {
  const strandDesk = (programme = full) => {
    const desk = madeUpDesk(programme);
    return { ...desk, strands: strandActions(desk.ports) };
  };

  test('takes the next in hand, and says where there is none', () => {
    const { strands, view, said } = strandDesk();
    strands.step(1);
    expect(view().strand).toBe('t');
    strands.step(1);
    expect(said).toEqual(['This is the last strand.']);
    const one = strandDesk(tide);
    one.strands.step(1);
    expect(one.said).toEqual(['This programme has one strand.']);
  });

  test('brings the selected cues, or copies, to another one, which is then in hand', () => {
    const { strands, programme, view, said, ports } = strandDesk();
    strands.bring('t', false);
    expect(said).toEqual(['Select cues first.']);
    ports.dispatch(selected(['c1']));
    strands.bring('t', true);
    expect([programme().cues['c1']?.strand, view().strand]).toEqual(['s', 't']);
    const copy = view().selection[0] ?? '';
    expect(programme().cues[copy]?.strand).toBe('t');
  });

  test('mutes the one in hand and lets it be seen again', () => {
    const { strands, programme } = strandDesk();
    strands.toggleMuted();
    expect(programme().strands['s']?.muted).toBe(true);
    strands.toggleMuted();
    expect(programme().strands['s']?.muted ?? false).toBe(false);
  });
});
