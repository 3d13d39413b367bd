/**
 * Correcting the pulse of a material: its beats and bars.
 *
 * Every edit here takes times of the material. Where a bar line is pinned, the bars around settle by what was heard of
 * each beat; where nothing was heard of them, they are counted from the pins on.
 */
import {
  BAR_LENGTHS,
  decodeBars,
  type BarLength,
  type BarOpinion,
  type BarPin,
} from '../../../listen/pulse/bars.ts';
import { BEATS_A_BAR, METRES, type Metre } from '../../../listen/pulse/metre.ts';
import { contains, type Range } from '../../../time/range.ts';
import { add, fromSeconds, later, subtract, ticks, ZERO, type Ticks } from '../../../time/ticks.ts';
import { create, remove, update, type Change, type Edit } from '../../record/change.ts';
import { beatsInOrder } from '../../order.ts';
import type { Beat, Id, Material, Programme } from '../../programme.ts';

/** A beat that is not in the programme yet. */
export type NewBeat = Pick<Beat, 'at' | 'bar' | 'opinion'>;

/** The metre of the last bar that begins at or before a beat, or of the first there is. */
export function metreAt(beats: readonly Beat[], at: Ticks): Metre {
  let found: Metre | null = null;
  for (const beat of beats) {
    if (beat.at > at && found) break;
    if (beat.bar) found = beat.bar;
  }
  return found ?? '4/4';
}

/** Beats of a material that were just found. */
export const newBeats = (material: Id, found: readonly NewBeat[], newId: () => Id): Change[] =>
  found.map(({ at, bar, opinion }) =>
    create('beat', {
      ...{ id: newId(), material, at, bar, fixed: false },
      ...(opinion && { opinion }),
    }),
  );

/** A beat that is found again is so near to where it was. */
const SAME_BEAT = fromSeconds(0.07);

/** The sections and the energy of a material just found, in the place of those before. */
export function setSong(
  programme: Programme,
  material: Id,
  song: Pick<Material, 'sections' | 'energy'>,
): Change[] {
  const old = programme.materials[material];
  return old ? update('material', old, song) : [];
}

/** The materials whose bar lines an edit changed; none where it brings the sections of a song along. */
export function withOtherBars({ beats }: Programme, { changes }: Edit): Id[] {
  if (changes.some(({ entity }) => entity === 'material')) return [];
  const materials = changes.flatMap((change): Id[] => {
    if (change.entity !== 'beat') return [];
    const { id, was, becomes } = change;
    if (was && becomes && !('bar' in becomes) && !('at' in becomes)) return [];
    return [beats[id]?.material ?? was?.material ?? ''];
  });
  return [...new Set(materials)];
}

/** Puts the pulse just found in the place of what was there, but for what the editor fixed. */
export function setPulse(
  programme: Programme,
  material: Id,
  found: readonly NewBeat[],
  newId: () => Id,
): Edit {
  const old = beatsInOrder(programme, material);
  const fixed = old.filter((beat) => beat.fixed);
  const spans = spansOf(fixed);
  const free = found.filter(({ at }) => !spans.some((span) => at > span.start && at < span.end));
  // What the editor said of bars is kept where there is a beat again.
  const pinned = old.filter(({ pin, fixed }) => pin && !fixed);
  const made = free.map((beat): Beat => {
    const near = pinned.find(({ at }) => Math.abs(at - beat.at) <= SAME_BEAT);
    const own = { ...beat, id: newId(), material, fixed: false };
    return near ? { ...own, pin: near.pin ?? null, bar: near.bar } : own;
  });
  const all = [...fixed, ...made].sort((a, b) => a.at - b.at);
  const bars = all.some(({ pin }) => pin) ? settledBars(all) : all.map(({ bar }) => bar);
  return {
    name: 'Find the pulse',
    changes: [
      ...old.filter((beat) => !beat.fixed).map((beat) => remove('beat', beat)),
      ...all.flatMap((beat, at) => {
        const bar = bars[at] ?? null;
        return beat.fixed ? update('beat', beat, { bar }) : [create('beat', { ...beat, bar })];
      }),
    ],
  };
}

/** Stretches from the first to the last of fixed beats that follow each other within three seconds, widened. */
function spansOf(fixed: readonly Beat[]): Range[] {
  const within = fromSeconds(3);
  const edge = fromSeconds(0.15);
  const spans: { start: Ticks; end: Ticks }[] = [];
  for (const { at } of fixed) {
    const last = spans.at(-1);
    if (last && at - last.end < within) last.end = add(at, edge);
    else spans.push({ start: subtract(at, edge), end: add(at, edge) });
  }
  return spans;
}

/** Replaces the beats of a material: every edit of a whole pulse is this. */
function replaced(
  name: string,
  old: readonly Beat[],
  next: readonly (NewBeat & { readonly old?: Beat })[],
  material: Id,
  newId: () => Id,
): Edit {
  const kept = new Set(next.map((beat) => beat.old?.id));
  const changes: Change[] = [
    ...old.filter((beat) => !kept.has(beat.id)).map((beat) => remove('beat', beat)),
    ...next.flatMap(({ at, bar, old: from }) =>
      from
        ? update('beat', from, { at, bar })
        : [create('beat', { id: newId(), material, at, bar, fixed: false })],
    ),
  ];
  return { name, changes };
}

/** Beats with their bars counted anew from the one at `first`, both ways. */
function counted<T extends NewBeat>(beats: readonly T[], first: number, metre: Metre): T[] {
  const length = BEATS_A_BAR[metre];
  return beats.map((beat, at) => ({
    ...beat,
    bar: (((at - first) % length) + length) % length === 0 ? metre : null,
  }));
}

/** Half as many beats: of each two, the one that is in step with the bar lines stays. */
export function halvePulse(programme: Programme, material: Id): Edit {
  const old = beatsInOrder(programme, material);
  const first = Math.max(0, firstBar(old));
  const kept = old.flatMap((beat, at) =>
    (at - first) % 2 === 0 ? [{ at: beat.at, bar: null, old: beat, first: at === first }] : [],
  );
  const from = kept.findIndex((beat) => beat.first);
  const bars = counted(kept, Math.max(0, from), metreAt(old, ZERO));
  return replaced('Halve the beats', old, bars, material, () => '');
}

/** Twice as many beats: one is put in the middle of each two. */
export function doublePulse(programme: Programme, material: Id, newId: () => Id): Edit {
  const old = beatsInOrder(programme, material);
  const first = Math.max(0, firstBar(old));
  const next = old.flatMap((beat, at) => {
    const after = old[at + 1];
    const own = { at: beat.at, bar: null as Metre | null, old: beat };
    return after ? [own, { at: ticks((beat.at + after.at) / 2), bar: null }] : [own];
  });
  const bars = counted<NewBeat & { readonly old?: Beat }>(next, 2 * first, metreAt(old, ZERO));
  return replaced('Double the beats', old, bars, material, newId);
}

/** The bar lines go on to the next beat, or back to the one before; the first is pinned there. */
export function shiftBars(programme: Programme, material: Id, by: 1 | -1): Edit {
  const beats = beatsInOrder(programme, material);
  const first = firstBar(beats) + by;
  return {
    name: by > 0 ? 'Move bars a beat later' : 'Move bars a beat earlier',
    changes: beats.flatMap((beat, at) => {
      const { bar = null, pin = null } = beats[at - by] ?? {};
      const next = at === first ? (pin ?? 'bar') : pin;
      return update('beat', beat, { bar, ...(next !== (beat.pin ?? null) && { pin: next }) });
    }),
  };
}

/** Every beat goes on by half the distance to the next one: where the off-beats were taken for beats. */
export function shiftHalfBeat(programme: Programme, material: Id): Edit {
  const beats = beatsInOrder(programme, material);
  return {
    name: 'Shift by half a beat',
    changes: beats.flatMap((beat, at) => {
      const [from, to] = [beats[at] as Beat, beats[at + 1] ?? beat];
      const before = beats[at - 1] ?? beat;
      const half = to === beat ? (beat.at - before.at) / 2 : (to.at - from.at) / 2;
      return update('beat', beat, { at: ticks(beat.at + half) });
    }),
  };
}

const firstBar = (beats: readonly Beat[]): number => beats.findIndex((beat) => beat.bar !== null);

const lengthOf = (metre: Metre): BarLength => BEATS_A_BAR[metre] as BarLength;

/** What is thought of a beat of which nothing was heard: it goes on in the metre that holds. */
const unheard = (metre: Metre): BarOpinion => ({
  begins: 0.3,
  lengths: BAR_LENGTHS.map((length) => (length === lengthOf(metre) ? 0.98 : 0.01)),
});

/** The beats of a material in order, some with something else said of them. */
function said(programme: Programme, material: Id, next: readonly Beat[]): Beat[] {
  const other = new Map(next.map((beat) => [beat.id, beat]));
  return beatsInOrder(programme, material).map((beat) => other.get(beat.id) ?? beat);
}

/** What was heard of each beat, and what the editor said of it. */
function opinionsOf(beats: readonly Beat[], before: readonly Metre[]): BarOpinion[] {
  return beats.map(({ opinion }, at) => {
    const [begins = 0, ...lengths] = opinion ?? [];
    if (!opinion) return unheard(before[at] as Metre);
    return { begins: begins / 100, lengths: lengths.map((value) => value / 100) };
  });
}

/** The bar lines that are pinned, with the length of their bars where that is. */
const pinsOf = (beats: readonly Beat[], only?: Metre): BarPin[] =>
  beats.flatMap(({ pin, bar }, beat): BarPin[] => {
    if (!pin) return [];
    const length = pin === 'metre' && bar && !only ? { length: lengthOf(bar) } : {};
    return [{ beat, ...length }];
  });

/**
 * How sure it is of each bar line, in order, from 0 to 1: 1 where it was pinned, undefined where nothing was heard of the
 * beats.
 */
export function sureOfBars(beats: readonly Beat[]): readonly number[] | undefined {
  if (beats.every(({ opinion }) => !opinion)) return undefined;
  const metres = beats.map(({ at }) => metreAt(beats, at));
  const places = decodeBars(opinionsOf(beats, metres), pinsOf(beats));
  return places.flatMap(({ place, confidence }, at) => {
    const { bar, pin } = beats[at] as Beat;
    if (bar === null) return [];
    return [pin ? 1 : place === 0 ? confidence : 1 - confidence];
  });
}

/**
 * The bars as they lie best between what the editor said.
 *
 * @param only  the metre of every bar, where the editor said that
 */
function settledBars(beats: readonly Beat[], only?: Metre): (Metre | null)[] {
  let holds = only;
  const before = beats.map((beat) => {
    if (beat.pin === 'metre' && !only) holds = beat.bar ?? undefined;
    return holds ?? metreAt(beats, beat.at);
  });
  const pins = pinsOf(beats, only);
  // Where neither ear nor editor says anything, the bars go on from the first one.
  if (pins.length === 0 && beats.every(({ opinion }) => !opinion) && firstBar(beats) >= 0)
    pins.push({ beat: firstBar(beats) });
  let named = new Map(METRES.map((metre) => [lengthOf(metre), metre]));
  for (const metre of [before[0], only]) if (metre) named.set(lengthOf(metre), metre);
  const places = decodeBars(opinionsOf(beats, before), pins, only && [lengthOf(only)]);
  return places.map(({ place, length }, at) => {
    const { pin, bar } = beats[at] as Beat;
    if (pin === 'metre' && bar && !only) named = new Map([...named, [length, bar]]);
    return place === 0 ? (named.get(length) ?? '4/4') : null;
  });
}

/** The bars of beats as they settle, and what is said anew of some beats. */
const settling = (programme: Programme, beats: readonly Beat[], only?: Metre): Change[] => {
  const bars = settledBars(beats, only);
  return beats.flatMap(({ id, pin }, at) => {
    const old = programme.beats[id];
    return old
      ? update('beat', old, { bar: bars[at] ?? null, ...(pin !== old.pin && { pin }) })
      : [];
  });
};

/** Every bar has this metre; they lie as they fit best between the bar lines that are pinned. */
export function setMetre(programme: Programme, material: Id, metre: Metre): Edit {
  const pinned = beatsInOrder(programme, material).map((beat): Beat =>
    beat.pin ? { ...beat, pin: 'bar' } : beat,
  );
  return {
    name: `Set the metre to ${metre}`,
    changes: settling(programme, pinned, metre),
  };
}

/**
 * Says that a bar begins with this beat, or takes that back; the bars around settle.
 *
 * @param metre  of that bar, where it is known; those that follow go on in it as long as the sound agrees
 */
export function pinBar(programme: Programme, id: Id, metre?: Metre): Edit {
  const beat = programme.beats[id];
  const release = !metre && Boolean(beat?.pin);
  const name = release ? 'Release a bar line' : metre ? `Go on in ${metre}` : 'Start a bar here';
  if (!beat) return { name, changes: [] };
  const pinned: Beat = metre
    ? { ...beat, pin: 'metre', bar: metre }
    : { ...beat, pin: release ? null : 'bar' };
  return { name, changes: settling(programme, said(programme, beat.material, [pinned])) };
}

/** Two beats are never nearer than this. */
const NEAREST = fromSeconds(0.05);

/**
 * Moves a beat and fixes it there. The beats between it and the next fixed one on either side are spread
 * as they were; where no beat is fixed on a side, those on that side move along.
 */
export function moveBeat(programme: Programme, id: Id, to: Ticks): Edit {
  const name = 'Move a beat';
  const beat = programme.beats[id];
  if (!beat) return { name, changes: [] };
  const beats = beatsInOrder(programme, beat.material);
  const place = beats.findIndex((each) => each.id === id);
  let [low, high] = [place - 1, place + 1];
  while (low >= 0 && !beats[low]?.fixed) low--;
  while (high < beats.length && !beats[high]?.fixed) high++;
  const [before, after] = [beats[low], beats[high]];
  const least = before ? add(before.at, (NEAREST * (place - low)) as Ticks) : ZERO;
  const most = after ? subtract(after.at, (NEAREST * (high - place)) as Ticks) : Infinity;
  const at = Math.max(least, Math.min(most, to)) as Ticks;
  const settled = (each: Beat, anchor: Beat | undefined): Ticks => {
    if (!anchor) return later(ticks(each.at + at - beat.at), ZERO);
    return ticks(anchor.at + ((each.at - anchor.at) * (at - anchor.at)) / (beat.at - anchor.at));
  };
  return {
    name,
    changes: beats.flatMap((each, index) => {
      if (index === place) return update('beat', beat, { at, fixed: true });
      if (index <= low || index >= high) return [];
      return update('beat', each, { at: settled(each, index < place ? before : after) });
    }),
    ...(at !== to && { note: 'Stopped at a fixed beat.' }),
  };
}

/** Fixes the beats of a stretch where they are, or sets them free. */
export function fixBeats(programme: Programme, material: Id, range: Range, fixed: boolean): Edit {
  const beats = beatsInOrder(programme, material).filter(({ at }) => contains(range, at));
  return {
    name: fixed ? 'Fix the beats' : 'Release the beats',
    changes: beats.flatMap((beat) => update('beat', beat, { fixed })),
  };
}

/** Takes beats away; the others stay as they are. */
export function removeBeats(programme: Programme, ids: readonly Id[]): Edit {
  const beats = ids.map((id) => programme.beats[id]).filter((beat) => beat !== undefined);
  return {
    name: beats.length === 1 ? 'Delete a beat' : 'Delete beats',
    changes: beats.map((beat) => remove('beat', beat)),
  };
}

/**
 * Draws a stretch of the pulse anew: these beats, fixed, in the place of those from the first to the last.
 *
 * Bars go on from the bar line before the stretch; the beats after it keep theirs.
 */
export function redrawBeats(
  programme: Programme,
  material: Id,
  times: readonly Ticks[],
  newId: () => Id,
): Edit {
  const name = 'Redraw the pulse';
  const sorted = [...times].sort((a, b) => a - b);
  const [first, last] = [sorted[0], sorted.at(-1)];
  if (first === undefined || last === undefined) return { name, changes: [] };
  const old = beatsInOrder(programme, material);
  const steps = sorted.slice(1).map((at, index) => subtract(at, sorted[index] as Ticks));
  const half = ticks(Math.min(...steps, fromSeconds(0.5)) / 2);
  const gone = old.filter(({ at }) => at > first - half && at < last + half);
  const before = old.filter(({ at }) => at <= first - half);
  const metre = metreAt(old, first);
  const lastBar = before.findLastIndex((beat) => beat.bar !== null);
  const since = lastBar < 0 ? 0 : before.length - lastBar;
  const length = BEATS_A_BAR[metre];
  return {
    name,
    changes: [
      ...gone.map((beat) => remove('beat', beat)),
      ...sorted.map((at, index) =>
        create('beat', {
          id: newId(),
          material,
          at,
          bar: (since + index) % length === 0 ? metre : null,
          fixed: true,
        }),
      ),
    ],
  };
}
