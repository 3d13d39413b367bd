/** Patterns: given to cues and strands, changed for all that have them, and made of what a cue has of its own. */
import type { ComesIn, Movement } from '../../../movement/movement.ts';
import { aOrMany, plural } from '../../../text/plural.ts';
import { typedWithSlips, typingOf } from '../../../movement/typing.ts';
import { plainText } from '../../../text/lines.ts';
import { countFrames, frameBefore, frames, nearestFrame } from '../../../time/frameRate.ts';
import { add, earlier, fromSeconds, later, subtract, ZERO } from '../../../time/ticks.ts';
import { cuesInOrder, neighbours } from '../../order.ts';
import { patternOf } from '../../patterns.ts';
import type { Cue, Id, Pattern, Programme, TextStyle } from '../../programme.ts';
import { apply } from '../../record/apply.ts';
import { create, remove, update, type Change, type Edit } from '../../record/change.ts';
import { sequence } from '../sequence.ts';

/** What a pattern is given to. */
export type Wearers = { readonly cues: readonly Id[] } | { readonly strand: Id };

const cuesOf = (programme: Programme, wearers: Wearers): readonly Cue[] =>
  'strand' in wearers
    ? cuesInOrder(programme, wearers.strand)
    : wearers.cues.flatMap((id) => programme.cues[id] ?? []);

/** Brings a pattern into the programme, unless it is there. */
const broughtIn = ({ patterns }: Programme, pattern: Pattern): Change[] =>
  pattern.id in patterns ? [] : [create('pattern', pattern)];

/**
 * Gives a pattern to cues, or to a strand and all its cues. What they have of their own stays. Cues whose first word
 * would have no time to come in begin earlier, and cues whose typed letters would have to be typed faster end later, as far
 * as there is room beside them.
 */
export function applyPattern(programme: Programme, pattern: Pattern, wearers: Wearers): Edit {
  const cues = cuesOf(programme, wearers);
  const name = `Apply “${pattern.name}” to ${'strand' in wearers ? 'a strand' : aOrMany(cues.length, 'cue')}`;
  const changes: Change[] = broughtIn(programme, pattern);
  if ('strand' in wearers) {
    const strand = programme.strands[wearers.strand];
    if (!strand) return { name, changes: [] };
    changes.push(...update('strand', strand, { pattern: pattern.id }));
    // A strand is given it whole: no cue of it keeps another one.
    for (const cue of cues) if (cue.pattern) changes.push(...update('cue', cue, { pattern: null }));
  } else for (const cue of cues) changes.push(...update('cue', cue, { pattern: pattern.id }));
  const ids = cues.map(({ id }) => id);
  const given = sequence(programme, [
    () => ({ name, changes }),
    (now) => ({ ...roomToComeIn(now, ids), name }),
    (now) => ({ ...roomToType(now, ids), name }),
  ]);
  return { ...given, name };
}

/** Frames before a word is said in which it begins to come in, where that is a number of frames. */
const beginsBefore = ({ takes, arrives, early }: ComesIn): number =>
  early + (arrives === 'lands' && takes?.in === 'frames' ? Math.round(takes.count) : 0);

/**
 * Has cues begin early enough for their first word to come in before it is said, where a gap before them has the room.
 * Their starts are tied to their first words.
 */
function roomToComeIn(programme: Programme, ids: readonly Id[]): Edit {
  const { frameRate } = programme.facts;
  const frame = frames(1, frameRate);
  const changes = ids.flatMap((id): Change[] => {
    const cue = programme.cues[id];
    const first = cue?.words[0];
    const comesIn = cue && (cue.movement?.comesIn ?? patternOf(programme, cue)?.movement.comesIn);
    if (!cue || !first || cue.startTie?.to === 'mark' || comesIn?.when !== 'said') return [];
    const said = frameBefore(first.start, frameRate);
    const wanted = subtract(said, frames(beginsBefore(comesIn), frameRate));
    const { before } = neighbours(programme, cue);
    const overlaps = programme.strands[cue.strand]?.overlapAllowed;
    const least = !overlaps && before ? before.end : ZERO;
    const start = frames(Math.ceil(later(wanted, least) / frame), frameRate);
    if (start >= cue.start) return [];
    const startTie = { to: 'word', frames: countFrames(subtract(said, start), frameRate) } as const;
    return update('cue', cue, { start, startTie });
  });
  return { name: 'Make room to come in', changes };
}

/** A change after which units come in otherwise: where they come earlier, cues begin early enough for that. */
function withRoom(
  programme: Programme,
  edit: Edit,
  [was, becomes]: readonly [ComesIn | null | undefined, ComesIn | null | undefined],
  ids: (now: Programme) => readonly Id[],
): Edit {
  if (!becomes || becomes.early <= (was?.early ?? 0)) return edit;
  const all = sequence(programme, [() => edit, (now) => roomToComeIn(now, ids(now))]);
  return { ...all, name: edit.name };
}

/** So long a typed text stays when its last letter has come, in seconds. */
const TYPED_STAYS = 1;

/** Has cues last until all of their letters are typed at the pace that is asked, where a gap after them has the room. */
function roomToType(programme: Programme, ids: readonly Id[]): Edit {
  const { frameRate, length } = programme.facts;
  const changes = ids.flatMap((id): Change[] => {
    const cue = programme.cues[id];
    const comesIn = cue && (cue.movement?.comesIn ?? patternOf(programme, cue)?.movement.comesIn);
    if (!cue || cue.endTie || comesIn?.when !== 'typed') return [];
    const last = typedWithSlips(plainText(cue.text), typingOf(comesIn)).times.at(-1) ?? 0;
    const typed = add(cue.start, add(fromSeconds(last), frames(comesIn.after, frameRate)));
    if (typed < cue.end) return [];
    const next = neighbours(programme, cue).after;
    const overlaps = programme.strands[cue.strand]?.overlapAllowed;
    const most = !overlaps && next ? next.start : later(length, cue.end);
    const end = earlier(nearestFrame(add(typed, fromSeconds(TYPED_STAYS)), frameRate), most);
    return end > cue.end ? update('cue', cue, { end }) : [];
  });
  return { name: 'Make room to type', changes };
}

/** Takes the pattern from cues, or from a strand and all its cues. */
export function takeOffPattern(programme: Programme, wearers: Wearers): Edit {
  const cues = cuesOf(programme, wearers);
  const name = `Take the pattern off ${'strand' in wearers ? 'a strand' : aOrMany(cues.length, 'cue')}`;
  const strand = 'strand' in wearers ? programme.strands[wearers.strand] : undefined;
  const changes = [
    ...(strand ? update('strand', strand, { pattern: null }) : []),
    ...cues.flatMap((cue) => update('cue', cue, { pattern: null })),
  ];
  const still = cues.filter((cue) => patternOf(apply(programme, changes), cue));
  if (still.length === 0) return { name, changes };
  const note = `${plural(still.length, 'cue has', 'cues have')} the pattern of the strand. Take it off the strand.`;
  return { name, changes, note };
}

/** What of a pattern is changed; undefined in a look is what the style of the strand has. */
export interface PatternPart {
  readonly name?: string;
  readonly look?: { readonly [K in keyof TextStyle]?: TextStyle[K] | undefined };
  readonly movement?: Partial<Movement>;
}

const withLook = (
  look: Partial<TextStyle>,
  part: NonNullable<PatternPart['look']>,
): Partial<TextStyle> =>
  Object.fromEntries(
    Object.entries({ ...look, ...part }).filter(([, value]) => value !== undefined),
  );

/** Changes a pattern, and so all that have it; one of the shelf is brought into the programme changed. */
export function changePattern(programme: Programme, of: Pattern, part: PatternPart): Edit {
  const pattern = programme.patterns[of.id];
  const title = part.name?.trim();
  const becomes: Partial<Pattern> = {
    ...(title && { name: title }),
    ...(part.look && { look: withLook((pattern ?? of).look, part.look) }),
    ...(part.movement && { movement: { ...(pattern ?? of).movement, ...part.movement } }),
  };
  const edit = {
    name: part.name === undefined ? 'Change a pattern' : 'Rename a pattern',
    changes: pattern
      ? update('pattern', pattern, becomes)
      : [create('pattern', { ...of, ...becomes })],
  };
  const { comesIn } = (pattern ?? of).movement;
  return withRoom(programme, edit, [comesIn, part.movement?.comesIn], (now) =>
    Object.values(now.cues).flatMap((cue) => (patternOf(now, cue)?.id === of.id ? cue.id : [])),
  );
}

/** Gives cues parts of a movement of their own, beside what their pattern has. */
export function changeMovement(
  programme: Programme,
  ids: readonly Id[],
  part: Partial<Movement>,
): Edit {
  const cues = ids.flatMap((id) => programme.cues[id] ?? []);
  const edit = {
    name: `Change the movement of ${aOrMany(cues.length, 'cue')}`,
    changes: cues.flatMap((cue) => update('cue', cue, { movement: { ...cue.movement, ...part } })),
  };
  const [first] = cues;
  const comesIn =
    first?.movement?.comesIn ?? (first && patternOf(programme, first)?.movement.comesIn);
  return withRoom(programme, edit, [comesIn, part.comesIn], () => ids);
}

/** What is put by hand on the picture: it is a cue's own, whatever its pattern or its strand says. */
const BY_HAND: readonly string[] = ['placed', 'turn', 'breakAt'] satisfies (keyof TextStyle)[];

/** Whether a part of a style, where a cue has it, is marked as its own. */
const isMarked = (pattern: Pattern | undefined, field: string): boolean =>
  BY_HAND.includes(field) || (pattern !== undefined && Object.hasOwn(pattern.look, field));

/** Whether a cue has something of its own in the place of what its pattern says. */
export function hasOwn(programme: Programme, cue: Cue): boolean {
  const pattern = patternOf(programme, cue);
  return (
    Object.keys(cue.movement ?? {}).length > 0 ||
    Object.keys(cue.style).some((field) => isMarked(pattern, field))
  );
}

/** Has cues as their pattern says again, but for what it says nothing of. */
export function takeBackOwn(programme: Programme, ids: readonly Id[]): Edit {
  const cues = ids
    .flatMap((id) => programme.cues[id] ?? [])
    .filter((cue) => hasOwn(programme, cue));
  return {
    name: `Take back what ${cues.length === 1 ? 'a cue has' : `${cues.length} cues have`} of their own`,
    changes: cues.flatMap((cue) => {
      const pattern = patternOf(programme, cue);
      const style = Object.fromEntries(
        Object.entries(cue.style).filter(([field]) => !isMarked(pattern, field)),
      );
      return update('cue', cue, { movement: null, style });
    }),
  };
}

/** What a cue has of its own becomes its pattern's, for all that have it. */
export function intoPattern(programme: Programme, id: Id): Edit {
  const name = 'Put a cue’s own into its pattern';
  const cue = programme.cues[id];
  const pattern = cue && patternOf(programme, cue);
  if (!cue || !pattern)
    return { name, changes: [], note: 'This cue has no pattern. Make one of it first.' };
  return {
    name,
    changes: [
      ...update('pattern', pattern, {
        look: { ...pattern.look, ...cue.style },
        movement: { ...pattern.movement, ...cue.movement },
      }),
      ...update('cue', cue, { movement: null, style: {} }),
    ],
  };
}

/**
 * Makes a pattern of how a cue looks and moves, and gives it to the cue.
 *
 * @param made  how it looks and moves as it stands
 */
export function makePattern(
  programme: Programme,
  cue: Id,
  made: {
    readonly id: Id;
    readonly name: string;
    readonly look: Partial<TextStyle>;
    readonly movement: Movement;
  },
): Edit {
  const wearer = programme.cues[cue];
  return {
    name: 'Make a pattern',
    changes: wearer
      ? [
          create('pattern', made),
          ...update('cue', wearer, { pattern: made.id, movement: null, style: {} }),
        ]
      : [],
  };
}

/** A name that no pattern has yet: the one that is wanted, or that with a number. */
function freeName(names: ReadonlySet<string>, wanted: string): string {
  if (!names.has(wanted)) return wanted;
  let count = 2;
  while (names.has(`${wanted} ${count}`)) count++;
  return `${wanted} ${count}`;
}

const namesOf = ({ patterns }: Programme): Set<string> =>
  new Set(Object.values(patterns).map(({ name }) => name));

/** Another pattern like one, under a name of its own. */
export function copyPattern(programme: Programme, pattern: Pattern, id: Id): Edit {
  const name = freeName(namesOf(programme).add(pattern.name), pattern.name);
  return { name: 'Duplicate a pattern', changes: [create('pattern', { ...pattern, id, name })] };
}

/**
 * Brings patterns into a programme that came from another one. One that is there already, as it is, is left out; one that
 * is another by now comes under a name of its own.
 */
export function bringPatterns(
  programme: Programme,
  patterns: readonly Pattern[],
  newId: () => Id,
): Edit & { readonly brought: readonly Id[] } {
  const names = namesOf(programme);
  const brought: Id[] = [];
  const changes = patterns.flatMap((pattern): Change[] => {
    const own = programme.patterns[pattern.id];
    if (own && update('pattern', own, pattern).length === 0) {
      brought.push(own.id);
      return [];
    }
    const id = own || brought.includes(pattern.id) ? newId() : pattern.id;
    const name = freeName(names, pattern.name);
    names.add(name);
    brought.push(id);
    return [create('pattern', { ...pattern, id, name })];
  });
  const there = patterns.length - changes.length;
  return {
    name: `Bring in ${aOrMany(changes.length, 'pattern')}`,
    changes,
    brought,
    ...(there > 0 && {
      note: `${plural(there, 'pattern is', 'patterns are')} in this programme already.`,
    }),
  };
}

/** Takes a pattern out of the programme, and off all that have it. */
export function removePattern(programme: Programme, id: Id): Edit {
  const name = 'Delete a pattern';
  const pattern = programme.patterns[id];
  if (!pattern) return { name, changes: [] };
  return {
    name,
    changes: [
      ...Object.values(programme.cues).flatMap((cue) =>
        cue.pattern === id ? update('cue', cue, { pattern: null }) : [],
      ),
      ...Object.values(programme.strands).flatMap((strand) =>
        strand.pattern === id ? update('strand', strand, { pattern: null }) : [],
      ),
      remove('pattern', pattern),
    ],
  };
}

/** How many frames earlier or later the units of a movement come in; each press of a key is one. */
export function nudgeComing(movement: Movement, by: number): Partial<Movement> {
  const { comesIn } = movement;
  return comesIn ? { comesIn: { ...comesIn, early: comesIn.early + by } } : {};
}
