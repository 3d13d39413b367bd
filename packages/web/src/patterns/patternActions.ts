/** What an editor does with patterns. */
import { movementOf, patternOf, styleOf } from '@cadence/core/programme/patterns.ts';
import {
  applyPattern,
  changeMovement,
  changePattern,
  copyPattern,
  intoPattern,
  makePattern,
  nudgeComing,
  removePattern,
  takeBackOwn,
  takeOffPattern,
  type PatternPart,
} from '@cadence/core/programme/edits/patterns/patterns.ts';
import { layKeys, takeKeys } from '@cadence/core/programme/edits/patterns/keys.ts';
import { STILL, type Movement } from '@cadence/core/movement/movement.ts';
import { patternFile } from '@cadence/core/programme/patternFile.ts';
import type { Cue, Id, Pattern, TextStyle } from '@cadence/core/programme/programme.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { setStyle } from '@cadence/core/programme/edits/text/reword.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { make, newId } from '../desk/desk.ts';
import { say } from '../desk/say.ts';
import { fileName, saveText } from '../kit/save.ts';
import { openNow, selectionNow } from '../desk/store.ts';
import { strandOfText } from './inHand.ts';

const now = () => openNow().programme;
const selected = (): readonly Id[] => selectionNow().map(({ id }) => id);

/** Where a change goes: into the pattern, or to the selected cues alone. */
export type Scope = 'pattern' | 'cues';

/** The edit that changes a part of how a pattern moves, or the selected cues alone. */
export const movementEdit = (pattern: Pattern, scope: Scope, movement: Partial<Movement>): Edit =>
  scope === 'cues'
    ? changeMovement(now(), selected(), movement)
    : changePattern(now(), pattern, { movement });

/**
 * The edit that gives part of a style to a pattern, or to the selected cues alone. A cue keeps what it has of its own of
 * it, and so is given that itself.
 */
export function lookEdit(
  pattern: Pattern | undefined,
  scope: Scope,
  cue: Cue,
  part: Partial<TextStyle>,
): Edit {
  const isOwn = Object.keys(part).some((field) => Object.hasOwn(cue.style, field));
  if (pattern && scope === 'pattern' && !isOwn)
    return changePattern(now(), pattern, { look: part });
  const ids = selected();
  return setStyle(now(), ids.includes(cue.id) ? ids : [cue.id], part);
}

export const patternActions = {
  toStrand: (pattern: Pattern) => {
    const strand = strandOfText(now());
    if (strand) make(applyPattern(now(), pattern, { strand: strand.id }));
  },
  toCues: (pattern: Pattern) => make(applyPattern(now(), pattern, { cues: selected() })),
  /** To the selected cues; to the strand where none is selected. */
  toSelected: (pattern: Pattern) =>
    selected().length > 0 ? patternActions.toCues(pattern) : patternActions.toStrand(pattern),
  offStrand: (strand: Id) => make(takeOffPattern(now(), { strand })),
  offCues: () => make(takeOffPattern(now(), { cues: selected() })),
  rename: (pattern: Pattern, name: string) => make(changePattern(now(), pattern, { name })),
  copy: (pattern: Pattern): Id => {
    const id = newId();
    make(copyPattern(now(), pattern, id));
    return id;
  },
  remove: (pattern: Pattern) => make(removePattern(now(), pattern.id)),
  ofCue: (cue: Cue): Id => {
    const id = newId();
    const programme = now();
    const pattern = patternOf(programme, cue);
    const look = { ...pattern?.look, ...styleOf(programme, cue) };
    const movement = movementOf(programme, cue, look.fade ?? 0) ?? STILL;
    const words = plainText(cue.text).replace(/\s+/g, ' ').slice(0, 24).trim();
    const name = `${pattern?.name ?? 'Pattern'} of “${words}”`;
    make(makePattern(programme, cue.id, { id, name, look, movement }));
    return id;
  },
  takeBack: () => make(takeBackOwn(now(), selected())),
  intoPattern: (cue: Cue) => make(intoPattern(now(), cue.id)),
  changeLook: (pattern: Pattern, scope: Scope, look: NonNullable<PatternPart['look']>) =>
    make(
      scope === 'cues'
        ? setStyle(now(), selected(), look)
        : changePattern(now(), pattern, { look }),
    ),
  changeMovement: (pattern: Pattern, scope: Scope, movement: Partial<Movement>) =>
    make(movementEdit(pattern, scope, movement)),
  /** Writes patterns as a file, to be taken to another programme. */
  writeFile: (patterns: readonly Pattern[], name: string) =>
    saveText(
      patternFile(now().facts, patterns),
      `${fileName(name)}.patterns.json`,
      'application/json',
    ),
  copyOver: (pattern: Pattern) =>
    navigator.clipboard.writeText(patternFile(now().facts, [pattern])).then(
      () => say.note(`“${pattern.name}” is copied. Paste it in another programme.`),
      () => say.problem('This browser does not let it be copied. Write it as a file instead.'),
    ),
  layKeys: (ids: readonly Id[], part: Parameters<typeof layKeys>[2]) =>
    make(layKeys(now(), ids, part, newId)),
  takeKeys: (ids: readonly Id[]) => make(takeKeys(now(), ids)),
  /** All units so many frames earlier, or later where less than 0. */
  nudge: (pattern: Pattern, scope: Scope, movement: Movement, by: number) =>
    patternActions.changeMovement(pattern, scope, nudgeComing(movement, by)),
};
