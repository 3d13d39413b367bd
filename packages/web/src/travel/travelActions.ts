/** What the editor can do with passages, whichever way it is asked for. */
import type { Edit } from '@cadence/core/programme/record/change.ts';
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
} from '@cadence/core/programme/edits/programme/passages.ts';
import type { PassageEdit } from '@cadence/core/programme/edits/programme/passageEdits.ts';
import { passagesInOrder } from '@cadence/core/programme/order.ts';
import { FOLLOWING, type Following, type Passage } from '@cadence/core/programme/passage.ts';
import type { Id, Programme, TravellingKind } from '@cadence/core/programme/programme.ts';
import { repeatUntilEnd } from '@cadence/core/scene/repeatUntilEnd.ts';
import type { TextShaper } from '@cadence/core/scene/shaper.ts';
import { wayOf } from '@cadence/core/scene/travelling.ts';
import { figuresOf } from '@cadence/core/scene/travelFigures.ts';
import type { DeskPorts } from '../desk/ports.ts';
import { looked, selected } from '../desk/view.ts';
import { passageInHand } from '../desk/passageInHand.ts';

/** What actions on passages need besides: how text is set, and the edit in the hand. */
export interface TravelPorts extends DeskPorts {
  readonly draft: (edit: Edit | null) => void;
  readonly shaper: TextShaper;
  /** Loads the fonts that a passage needs to be measured. */
  readonly prepare: (programme: Programme, passage: Passage) => Promise<unknown>;
}

export function travelActions(desk: TravelPorts) {
  const { player, make, draft, newId, note, dispatch, shaper, prepare } = desk;
  const passage = () => passageInHand(desk.programme(), desk.view());
  const measure: MeasureWay = (of) => wayOf(of, desk.programme().facts.frame, shaper).distance;

  /** Takes a passage in hand, and its cue with it. */
  function take(id: Id): void {
    dispatch(looked({ passage: id }));
    const cue = cueOf(desk.programme(), id);
    dispatch(selected(cue ? [cue.id] : []));
  }

  function withPassage(work: (passage: Passage) => void): void {
    const now = passage();
    if (now) work(now);
    else note('Make a roll or a crawl first.');
  }

  /** The edit that would be made of the passage in hand. */
  const editNow = (edit: PassageEdit, { id }: Passage): Edit => edit(desk.programme(), id, measure);

  /** Makes an edit of the passage in hand. */
  const change = (edit: PassageEdit): void =>
    withPassage((passage) => void make(editNow(edit, passage)));

  /** Shows what an edit of the passage in hand would make of it. */
  const tryOut = (edit: PassageEdit | null): void => {
    if (edit) withPassage((passage) => draft(editNow(edit, passage)));
    else draft(null);
  };

  /** A new passage, which is in hand then; a crawl begins at the playhead. */
  async function add(
    kind: TravellingKind,
    begin: Partial<Omit<NewPassage, 'id'>> = {},
  ): Promise<void> {
    const id = newId();
    const programme = desk.programme();
    const wanted = { id, sheet: '', from: player.time, ...begin };
    const draftOf = addPassage(programme, kind, wanted, () => 1, newId);
    const made = draftOf.changes.find(({ entity }) => entity === 'passage');
    if (made?.becomes) await prepare(programme, made.becomes as Passage);
    make(addPassage(desk.programme(), kind, wanted, measure, newId));
    take(id);
    const cue = cueOf(desk.programme(), id);
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
      const programme = desk.programme();
      const { travel, options } = figuresOf(
        programme.facts,
        passage,
        cueOf(programme, passage.id),
        shaper,
      );
      const beside = options.filter(({ speed }) =>
        by > 0 ? speed > travel.speed + 1e-9 : speed < travel.speed - 1e-9,
      );
      const next = by > 0 ? beside[0] : beside.at(-1);
      if (next) change((now, id, measure) => setSpeed(now, id, next.speed, measure));
      else note(`There is no ${by > 0 ? 'faster' : 'slower'} even speed.`);
    });

  /** Takes the passage `by` places further on in hand. */
  function step(by: 1 | -1): void {
    const all = passagesInOrder(desk.programme()).map(({ id }) => id);
    const next = all[all.indexOf(passage()?.id ?? '') + by];
    if (next === undefined) {
      note(`This is the ${by > 0 ? 'last' : 'first'} passage.`);
      return;
    }
    take(next);
    const cue = cueOf(desk.programme(), next);
    if (cue) player.seek(cue.start);
  }

  return {
    /** How far passages travel on the frame of the programme, once their fonts are there. */
    measure,
    take,
    repeatUntilEnd: () =>
      change((programme, id, measure) => repeatUntilEnd(programme, id, measure, shaper)),
    add,
    change,
    tryOut,
    step,
    followNext,
    evenSpeed,
    letFollow: (follows: Following) =>
      change((programme, id, measure) => letFollow(programme, id, follows, measure)),
    setSpeed:
      (speed: number): PassageEdit =>
      (programme, id, measure) =>
        setSpeed(programme, id, speed, measure),
    setSize:
      (size: number): PassageEdit =>
      (programme, id, measure) =>
        setSize(programme, id, size, measure),
    place:
      (placing: Placing): PassageEdit =>
      (programme, id, measure) =>
        placePassage(programme, id, placing, measure, newId),
    setSheet:
      (sheet: string, name = 'Edit a sheet'): PassageEdit =>
      (programme, id, measure) =>
        editPassage(programme, id, { sheet }, measure, name),
    setSeparator:
      (separator: string | null): PassageEdit =>
      (programme, id, measure) =>
        editPassage(programme, id, { separator }, measure, 'Set the separator'),
    rename:
      (title: string): PassageEdit =>
      (programme, id, measure) =>
        editPassage(programme, id, { title }, measure, 'Rename a passage'),
    copy: () =>
      withPassage(({ id }) => {
        const copy = newId();
        make(copyPassage(desk.programme(), id, copy));
        take(copy);
      }),
    takeOff: () => withPassage(({ id }) => void make(takeOff(desk.programme(), id))),
    remove: () => withPassage(({ id }) => void make(deletePassage(desk.programme(), id))),
  };
}
