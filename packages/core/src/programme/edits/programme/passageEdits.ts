/** Edits of one passage that can be made one after the other as a single step. */
import { frameAfter } from '../../../time/frameRate.ts';
import { later, ZERO, type Ticks } from '../../../time/ticks.ts';
import type { Journey, Passage } from '../../passage.ts';
import type { Id, Programme } from '../../programme.ts';
import type { Edit } from '../../record/change.ts';
import { sequence } from '../sequence.ts';
import { cueOf, editPassage, type MeasureWay } from './passages.ts';
import { setFacts } from './setFacts.ts';

/** An edit of a passage, from the programme as it is. */
export type PassageEdit = (programme: Programme, id: Id, measure: MeasureWay) => Edit;

/** Several edits of a passage as one step. */
export const together =
  (...edits: readonly PassageEdit[]): PassageEdit =>
  (programme, id, measure) =>
    sequence(
      programme,
      edits.map((edit) => (now: Programme) => edit(now, id, measure)),
    );

/** Sets some fields of the look of a passage. */
export const setLook =
  (look: Partial<Passage['look']>): PassageEdit =>
  (programme, id, measure) => {
    const after = { ...programme.passages[id]?.look, ...look } as Passage['look'];
    return editPassage(programme, id, { look: after }, measure, 'Set the look');
  };

/** Sets some fields of how a passage travels. */
export const setJourney =
  (journey: Partial<Journey>): PassageEdit =>
  (programme, id, measure) => {
    const name = 'Set the motion';
    const passage = programme.passages[id];
    if (!passage) return { name, changes: [] };
    return editPassage(
      programme,
      id,
      { journey: { ...passage.journey, ...journey } },
      measure,
      name,
    );
  };

/** Makes the programme longer where it ends before a passage does. */
export const makeRoom: PassageEdit = (programme, id) => {
  const name = 'Make the programme longer';
  const end = cueOf(programme, id)?.end;
  if (end === undefined || end <= programme.facts.length) return { name, changes: [] };
  return setFacts(programme, { length: end }, name);
};

/** The instant at which the film ends, or without one the last text that does not travel: after it a roll may begin. */
export function afterLastPicture({ facts, materials, cues }: Programme): Ticks {
  const film = facts.picture === null ? undefined : materials[facts.picture];
  if (film) return frameAfter(film.length, facts.frameRate);
  return Object.values(cues)
    .filter(({ passage }) => !passage)
    .reduce((last, { end }) => later(last, end), ZERO);
}
