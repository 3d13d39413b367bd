/** The pattern of a cue, and how it moves. */
import { fading, isStill, STILL, type Movement } from '../movement/movement.ts';
import { patternShelf } from './patternShelf.ts';
import type { Cue, Pattern, Programme, Strand, TextStyle } from './programme.ts';

/** The pattern that a cue has: its own, or that of its strand; undefined where it has none, or one that is gone. */
export function patternOf({ strands, patterns }: Programme, cue: Cue): Pattern | undefined {
  const own = cue.pattern ? patterns[cue.pattern] : undefined;
  return own ?? patterns[strands[cue.strand]?.pattern ?? ''];
}

/** The style of a strand, with what its pattern sets. */
export function styleOfStrand(
  { patterns }: Pick<Programme, 'patterns'>,
  strand: Strand,
): TextStyle {
  return { ...strand.style, ...patterns[strand.pattern ?? '']?.look };
}

/** The style of a cue: its strand's, then what its pattern sets, then what the cue sets itself. */
export function styleOf(programme: Programme, cue: Cue): TextStyle {
  const strand = programme.strands[cue.strand];
  if (!strand) throw new Error(`The cue ${cue.id} is on no strand.`);
  return { ...strand.style, ...patternOf(programme, cue)?.look, ...cue.style };
}

const fades = new Map<number, Movement>();

/** Fading over a number of frames; the same object each time. */
function fadingOver(frames: number): Movement {
  const known = fades.get(frames) ?? fading(frames);
  fades.set(frames, known);
  return known;
}

/** Movements of cues that have a part of their own, remembered by the two. */
const joined = new WeakMap<object, WeakMap<object, Movement>>();

function withOwn(movement: Movement, own: Partial<Movement>): Movement {
  const known = joined.get(movement) ?? new WeakMap<object, Movement>();
  joined.set(movement, known);
  const made = known.get(own) ?? { ...movement, ...own };
  known.set(own, made);
  return made;
}

/**
 * How a cue moves: as its pattern does, but for what it has of its own; without either it fades as its style says.
 * Undefined where it stands still.
 *
 * @param fade  frames in which it fades where nothing else is said
 */
export function movementOf(programme: Programme, cue: Cue, fade: number): Movement | undefined {
  const pattern = patternOf(programme, cue);
  const usual = pattern?.movement ?? (fade > 0 ? fadingOver(fade) : STILL);
  const movement = cue.movement ? withOwn(usual, cue.movement) : usual;
  return isStill(movement) ? undefined : movement;
}

/** The patterns that can be given: those of the programme by name, then those of the shelf that are not among them. */
export function patternsAtHand({ patterns, facts }: Programme): readonly Pattern[] {
  const own = Object.values(patterns).sort((a, b) => a.name.localeCompare(b.name));
  return [...own, ...patternShelf(facts).filter(({ id }) => !(id in patterns))];
}
