import { addPassage, cueOf } from '@cadence/core/programme/edits/programme/passages.ts';
import type { Passage } from '@cadence/core/programme/passage.ts';
import { at25, countingIds, programmeWithCues } from '@cadence/core/programme/samples.ts';
import { apply } from '@cadence/core/programme/record/apply.ts';
import { squareShaper } from '@cadence/core/scene/samples.ts';
import { madeUpDesk } from '../desk/desk.samples.ts';
import { travelActions } from './travelActions.ts';

const { shaper } = squareShaper();
const base = programmeWithCues([['Slack water', 0, 50]]);
const wanted = { id: 'r', sheet: 'Orla Fenwether\n'.repeat(4), from: at25(0) };
const rolling = apply(base, addPassage(base, 'roll', wanted, () => 2000, countingIds()).changes);

function travelDesk(programme = base) {
  const desk = madeUpDesk(programme);
  const prepared: Passage[] = [];
  const travel = travelActions({
    ...desk.ports,
    draft: () => undefined,
    shaper,
    prepare: (_, passage) => Promise.resolve(prepared.push(passage)),
  });
  return { ...desk, travel, prepared };
}

describe('what is done with passages', () => {
  test('asks for one first', () => {
    const { travel, said, names } = travelDesk();
    travel.copy();
    expect([said, names()]).toEqual([['Make a roll or a crawl first.'], []]);
  });

  test('adds a crawl at the playhead, measured with its fonts, and takes it in hand', async () => {
    const { travel, player, programme, view, prepared } = travelDesk();
    player.time = at25(100);
    await travel.add('crawl', { sheet: 'The tide turns' });
    const [passage] = Object.values(programme().passages);
    expect(prepared.map(({ sheet }) => sheet)).toEqual(['The tide turns']);
    const cue = passage && cueOf(programme(), passage.id);
    expect([cue?.start, view().passage, view().selection]).toEqual([
      at25(100),
      passage?.id,
      [cue?.id],
    ]);
  });

  test('copies it, takes the copy in hand, and steps back to the first', () => {
    const { travel, programme, view, player, said } = travelDesk(rolling);
    travel.copy();
    const copy = view().passage;
    expect(Object.keys(programme().passages)).toEqual(['r', copy]);
    travel.step(-1);
    expect([view().passage, player.time]).toEqual(['r', cueOf(programme(), 'r')?.start]);
    travel.step(-1);
    expect(said).toEqual(['This is the first passage.']);
  });

  test('goes to the next even speed, and says where there is none', () => {
    const { travel, programme, said } = travelDesk(rolling);
    const speed = () => programme().passages['r']?.journey.speed ?? 0;
    const before = speed();
    travel.evenSpeed(1);
    expect(speed()).toBe(before + 1);
    for (let times = 0; times < 50; times++) travel.evenSpeed(-1);
    expect(said.at(-1)).toBe('There is no slower even speed.');
    expect(speed()).toBeGreaterThan(0);
  });

  test('takes it off the programme and keeps it', () => {
    const { travel, programme } = travelDesk(rolling);
    travel.takeOff();
    expect(cueOf(programme(), 'r')).toBeUndefined();
    expect(Object.keys(programme().passages)).toEqual(['r']);
    travel.remove();
    expect(programme().passages).toEqual({});
  });
});
