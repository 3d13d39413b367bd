/** What the editor can do with passages, whichever way it is asked for. */
import { apply } from '@cadence/core/programme/apply.ts';
import type { Change, Edit } from '@cadence/core/programme/change.ts';
import {
  addPassage,
  copyPassage,
  cueOf,
  deletePassage,
  editPassage,
  letFollow,
  placePassage,
  setSize,
  setSpeed,
  takeOff,
  type MeasureWay,
  type NewPassage,
  type Placing,
} from '@cadence/core/programme/edits/passages.ts';
import { setFacts } from '@cadence/core/programme/edits/setFacts.ts';
import {
  FOLLOWING,
  type Crawl,
  type Following,
  type Journey,
  type Passage,
  type Roll,
} from '@cadence/core/programme/passage.ts';
import type { Id, Programme, TravellingKind } from '@cadence/core/programme/programme.ts';
import { framesOf, laidCrawl } from '@cadence/core/scene/travelling.ts';
import { figuresOf } from '@cadence/core/scene/travelFigures.ts';
import { frameAfter } from '@cadence/core/time/frameRate.ts';
import { later, type Ticks } from '@cadence/core/time/ticks.ts';
import { draft, make, newId } from '../desk/desk.ts';
import { say } from '../desk/say.ts';
import { openNow } from '../desk/store.ts';
import { preparePassage, shelf } from '../picture/studio.ts';
import { player } from '../playback/player.ts';
import { measureWay, passageNow, passagesInOrder, takePassage } from './now.ts';

/** An edit of a passage, from the programme as it is. */
export type TravelEdit = (programme: Programme, id: Id, measure: MeasureWay) => Edit;

function withPassage(work: (passage: Passage) => void): void {
  const passage = passageNow();
  if (passage) work(passage);
  else say.note('Make a roll or a crawl first.');
}

/** The edit that would be made of the passage in hand. */
const editNow = (edit: TravelEdit, { id }: Passage): Edit =>
  edit(openNow().programme, id, measureWay);

/** Makes an edit of the passage in hand. */
const change = (edit: TravelEdit): void =>
  withPassage((passage) => void make(editNow(edit, passage)));

/** Shows what an edit of the passage in hand would make of it. */
const tryOut = (edit: TravelEdit | null): void => {
  if (edit) withPassage((passage) => draft(editNow(edit, passage)));
  else draft(null);
};

/** A new passage, which is in hand then; a crawl begins at the playhead. */
async function add(
  kind: TravellingKind,
  begin: Partial<Omit<NewPassage, 'id'>> = {},
): Promise<void> {
  const id = newId();
  const { programme } = openNow();
  const wanted = { id, sheet: '', from: player.time, ...begin };
  const draftOf = addPassage(programme, kind, wanted, () => 1, newId);
  const made = draftOf.changes.find(({ entity }) => entity === 'passage');
  if (made?.becomes) await preparePassage(programme, made.becomes as Passage);
  make(addPassage(openNow().programme, kind, wanted, measureWay, newId));
  takePassage(id);
  const cue = cueOf(openNow().programme, id);
  if (cue) player.seek(cue.start);
}

/** The next of size, time and speed follows. */
const followNext = (): void =>
  withPassage(({ journey }) => {
    const next = FOLLOWING[(FOLLOWING.indexOf(journey.follows) + 1) % FOLLOWING.length];
    if (next) change((programme, id, measure) => letFollow(programme, id, next, measure));
  });

/** The next even speed, faster or slower. */
const evenSpeed = (by: 1 | -1): void =>
  withPassage((passage) => {
    const { programme } = openNow();
    const { travel, options } = figuresOf(
      programme.facts,
      passage,
      cueOf(programme, passage.id),
      shelf,
    );
    const beside = options.filter(({ speed }) =>
      by > 0 ? speed > travel.speed + 1e-9 : speed < travel.speed - 1e-9,
    );
    const next = by > 0 ? beside[0] : beside.at(-1);
    if (next) change((now, id, measure) => setSpeed(now, id, next.speed, measure));
    else say.note('There is no slower even speed.');
  });

/** Takes the passage `by` places further on in hand. */
function step(by: 1 | -1): void {
  const all = passagesInOrder(openNow().programme).map(({ id }) => id);
  const next = all[all.indexOf(passageNow()?.id ?? '') + by];
  if (next === undefined) {
    say.note('There is no further passage that way.');
    return;
  }
  takePassage(next);
  const cue = cueOf(openNow().programme, next);
  if (cue) player.seek(cue.start);
}

/** Where the film ends, or the last text that does not travel: after that a roll may begin. */
export function afterLastPicture({ facts, materials, cues }: Programme): Ticks {
  const film = facts.picture === null ? undefined : materials[facts.picture];
  if (film) return frameAfter(film.length, facts.frameRate);
  return Object.values(cues)
    .filter(({ passage }) => !passage)
    .reduce((last, { end }) => later(last, end), 0 as Ticks);
}

/** Several edits as one step, each made on what the one before has made; it is called as the last of them. */
const together =
  (...edits: readonly TravelEdit[]): TravelEdit =>
  (programme, id, measure) => {
    let [now, name, note] = [programme, '', undefined as string | undefined];
    const changes: Change[] = [];
    for (const edit of edits) {
      const made = edit(now, id, measure);
      changes.push(...made.changes);
      now = apply(now, made.changes);
      [name, note] = [made.name, made.note ?? note];
    }
    return { name, changes, ...(note !== undefined && { note }) };
  };

/** A crawl comes by as often as it can until the programme ends, at the speed that it has. */
const repeatUntilEnd = (): TravelEdit => (programme, id, measure) => {
  const name = 'Repeat until the programme ends';
  const passage = programme.passages[id];
  const cue = cueOf(programme, id);
  if (passage?.kind !== 'crawl' || !cue) return { name, changes: [] };
  const { facts } = programme;
  const { once, between, stage } = laidCrawl(passage, facts.frame, shelf);
  const { speed } = figuresOf(facts, passage, cue, shelf).travel;
  const room = framesOf({ start: cue.start, end: facts.length }, facts) * speed;
  const times = Math.floor((room - (stage.to - stage.from) + between) / (once + between));
  if (times < 1)
    return { name, changes: [], note: 'It cannot come by once before the programme ends.' };
  const look = { ...passage.look, times };
  const journey = { ...passage.journey, speed, follows: 'time' as const, keeps: 'start' as const };
  return editPassage(programme, id, { look, journey }, measure, name);
};

/** The programme ends no earlier than a passage does. */
const makeRoom = (): TravelEdit => (programme, id) => {
  const name = 'Make the programme longer';
  const end = cueOf(programme, id)?.end;
  if (end === undefined || end <= programme.facts.length) return { name, changes: [] };
  return setFacts(programme, { length: end }, name);
};

export const travel = {
  together,
  makeRoom,
  repeatUntilEnd,
  add,
  change,
  tryOut,
  step,
  followNext,
  evenSpeed,
  letFollow: (follows: Following) =>
    change((programme, id, measure) => letFollow(programme, id, follows, measure)),
  setSpeed:
    (speed: number): TravelEdit =>
    (programme, id, measure) =>
      setSpeed(programme, id, speed, measure),
  setSize:
    (size: number): TravelEdit =>
    (programme, id, measure) =>
      setSize(programme, id, size, measure),
  place:
    (placing: Placing): TravelEdit =>
    (programme, id, measure) =>
      placePassage(programme, id, placing, measure, newId),
  setSheet:
    (sheet: string, name = 'Write on a sheet'): TravelEdit =>
    (programme, id, measure) =>
      editPassage(programme, id, { sheet }, measure, name),
  setLook:
    (look: Roll['look'] | Crawl['look']): TravelEdit =>
    (programme, id, measure) => {
      const before = programme.passages[id]?.look;
      const after = { ...before, ...look } as Passage['look'];
      return editPassage(programme, id, { look: after }, measure, 'Set how it looks');
    },
  setJourney:
    (journey: Partial<Journey>): TravelEdit =>
    (programme, id, measure) => {
      const before = programme.passages[id]?.journey;
      if (!before) return { name: '', changes: [] };
      const after = { ...before, ...journey };
      return editPassage(programme, id, { journey: after }, measure, 'Set how it travels');
    },
  setSeparator:
    (separator: string | null): TravelEdit =>
    (programme, id, measure) =>
      editPassage(programme, id, { separator }, measure, 'Set what parts roles from names'),
  rename:
    (title: string): TravelEdit =>
    (programme, id, measure) =>
      editPassage(programme, id, { title }, measure, 'Rename a passage'),
  copy: () =>
    withPassage(({ id }) => {
      const copy = newId();
      make(copyPassage(openNow().programme, id, copy));
      takePassage(copy);
    }),
  takeOff: () => withPassage(({ id }) => void make(takeOff(openNow().programme, id))),
  remove: () => withPassage(({ id }) => void make(deletePassage(openNow().programme, id))),
};
