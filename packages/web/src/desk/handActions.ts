/** What the editor can do with what is in hand besides cues: pieces, beats, hits and marks. */
import type { Edit } from '@cadence/core/programme/record/change.ts';
import {
  acceptHits,
  addHit,
  removeHits,
  splitHit,
  trimHit,
} from '@cadence/core/programme/edits/found/hits.ts';
import {
  addMarks,
  moveMarks,
  removeMarks,
  setMark,
} from '@cadence/core/programme/edits/found/marks.ts';
import {
  addPiece,
  joinPieces,
  removePieces,
  splitPiece,
  trimPiece,
} from '@cadence/core/programme/edits/found/pieces.ts';
import {
  doublePulse,
  fixBeats,
  halvePulse,
  metreAt,
  moveBeat,
  pinBar,
  redrawBeats,
  removeBeats,
  setMetre,
  shiftBars,
  shiftHalfBeat,
} from '@cadence/core/programme/edits/found/pulse.ts';
import type { Edge } from '@cadence/core/programme/edits/cues/trimCue.ts';
import { materialTime, soundsHeard } from '@cadence/core/programme/heard.ts';
import { beatsInOrder } from '@cadence/core/programme/order.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { METRES, type Metre } from '@cadence/core/listen/pulse/metre.ts';
import { frames } from '@cadence/core/time/frameRate.ts';
import type { Range } from '@cadence/core/time/range.ts';
import { add, fromSeconds, ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import { HANDS, NAMES, thingsOf, type Hand, type Thing } from '@cadence/core/rows/things.ts';
import type { DeskPorts } from './ports.ts';
import { looked, picked } from './view.ts';

/** The length of a new piece, and how much is played after a beat or mark. */
const NEW_PIECE = fromSeconds(1);
const AFTER_INSTANT = fromSeconds(0.6);

type OtherHand = Exclude<Hand, 'cues'>;

export function handActions(desk: DeskPorts) {
  const { player, make, newId, note, dispatch } = desk;
  const handNow = (): OtherHand => {
    const { hand } = desk.view();
    return hand === 'cues' ? 'marks' : hand;
  };

  const things = (): readonly Thing[] => thingsOf(desk.programme(), handNow());

  const pick = (...ids: Id[]): void => void dispatch(picked(ids));

  /** What is picked and still there. */
  function pickedNow(): Id[] {
    const there = new Set(things().map(({ id }) => id));
    return desk.view().picked.filter((id) => there.has(id));
  }

  function withPicked(work: (ids: Id[], programme: Programme) => Edit): boolean {
    const ids = pickedNow();
    if (ids.length > 0) return make(work(ids, desk.programme()));
    note(`Pick a ${NAMES[handNow()].one} first.`);
    return false;
  }

  const withOne = (work: (id: Id, programme: Programme) => Edit): boolean =>
    withPicked((ids, programme) => work(ids.at(-1) ?? '', programme));

  /** The material whose pulse is worked on: that of the picked beat, else the first that has beats. */
  function pulseMaterial(programme: Programme): Id | undefined {
    const beat = programme.beats[desk.view().picked.at(-1) ?? ''];
    const heard = soundsHeard(programme).map(({ material }) => material);
    return beat?.material ?? heard.find((id) => beatsInOrder(programme, id).length > 0) ?? heard[0];
  }

  function withPulse(work: (programme: Programme, material: Id) => Edit): void {
    const programme = desk.programme();
    const material = pulseMaterial(programme);
    if (material !== undefined && beatsInOrder(programme, material).length > 0)
      make(work(programme, material));
    else note('There are no beats yet. Find the pulse in Material, or tap it.');
  }

  const pickedBeat = () => desk.programme().beats[pickedNow().at(-1) ?? ''];

  /** The metre of the bars from the picked beat on, or of all. */
  function metreFromHere(programme: Programme, material: Id, metre: Metre): Edit {
    const beat = pickedBeat();
    return beat ? pinBar(programme, beat.id, metre) : setMetre(programme, material, metre);
  }

  /** The playhead in the time of the material that a thing was found in. */
  function playheadIn(programme: Programme, material: Id | undefined): Ticks {
    return materialTime(programme, material ?? null, player.time);
  }

  function goTo(thing: Thing | undefined, extend = false): void {
    if (!thing) return;
    const { picked: now } = desk.view();
    pick(...(extend ? [...now.filter((id) => id !== thing.id), thing.id] : [thing.id]));
    if (!extend) player.seek(thing.start);
  }

  /** Picks the thing `by` places on, from what is picked or from the playhead. */
  function step(by: 1 | -1, extend = false): void {
    const all = things();
    const at = all.findIndex(({ id }) => id === pickedNow().at(-1));
    if (at >= 0) {
      goTo(all[Math.max(0, Math.min(all.length - 1, at + by))], extend);
      return;
    }
    const { time } = player;
    goTo(
      by > 0 ? all.find(({ start }) => start >= time) : all.findLast(({ start }) => start < time),
    );
  }

  /** The stretch from the first to the last of what is picked, its end included. */
  function pickedStretch(): Range | undefined {
    const ids = new Set(pickedNow());
    const all = things().filter(({ id }) => ids.has(id));
    const [first, last] = [all[0], all.at(-1)];
    return first && last && { start: first.start, end: add(last.end, 1 as Ticks) };
  }

  function addThing(): void {
    const programme = desk.programme();
    const hand = handNow();
    const main = soundsHeard(programme)[0]?.material;
    if (hand === 'marks') {
      dropMark();
      return;
    }
    if (main === undefined) {
      note('Bring in a sound first.');
      return;
    }
    const at = playheadIn(programme, main);
    const edit =
      hand === 'pieces'
        ? addPiece(programme, main, { start: at, end: add(at, NEW_PIECE) }, newId)
        : hand === 'hits'
          ? addHit(programme, main, at, newId)
          : addBeat(programme, at);
    const [made] = edit.changes;
    if (make(edit) && made) pick(made.id);
  }

  function addBeat(programme: Programme, at: Ticks): Edit {
    const material = pulseMaterial(programme) ?? '';
    return { ...redrawBeats(programme, material, [at], newId), name: 'Add a beat' };
  }

  function dropMark(): void {
    const edit = addMarks(desk.programme(), [{ at: player.time, purpose: 'place' }], newId);
    const [made] = edit.changes;
    if (!make(edit) || !made) return;
    // While playing, the hand stays on what it works on.
    if (player.state().playing) return;
    dispatch(looked({ hand: 'marks' }));
    pick(made.id);
  }

  const hold = {
    setHand: (hand: Hand) => dispatch(looked({ hand })),
    /** The next kind of thing comes to hand. */
    nextHand: () => {
      const { hand } = desk.view();
      const next = HANDS[(HANDS.indexOf(hand) + 1) % HANDS.length] ?? 'cues';
      dispatch(looked({ hand: next }));
      note(`In hand: ${NAMES[next].many.toLowerCase()}.`, 'hand');
    },
    pick,
    next: () => step(1),
    before: () => step(-1),
    extendNext: () => step(1, true),
    extendBefore: () => step(-1, true),
    all: () => pick(...things().map(({ id }) => id)),
    none: () => pick(),
    add: addThing,
    dropMark,

    remove: () => {
      const stretchEnd = pickedNow().at(-1);
      const all = things();
      const after = all[all.findIndex(({ id }) => id === stretchEnd) + 1];
      const gone = withPicked((ids, programme) => {
        if (handNow() === 'pieces') return removePieces(programme, ids);
        if (handNow() === 'hits') return removeHits(programme, ids);
        if (handNow() === 'marks') return removeMarks(programme, ids);
        return removeBeats(programme, ids);
      });
      if (gone) pick(...(after ? [after.id] : []));
    },

    /** Moves marks or a beat by frames; pieces and hits have edges instead. */
    nudge: (count: number) => {
      const { frameRate } = desk.programme().facts;
      const by = frames(count, frameRate);
      const hand = handNow();
      if (hand === 'marks') withPicked((ids, programme) => moveMarks(programme, ids, by));
      else if (hand === 'beats')
        withOne((id, programme) =>
          moveBeat(programme, id, add(programme.beats[id]?.at ?? (0 as Ticks), by)),
        );
      else note('Press [ or ] to move an edge to the playhead.');
    },

    /** Puts the start or end of a piece or hit at the playhead; a beat or mark goes there whole. */
    trim: (edge: Edge) =>
      withOne((id, programme) => {
        const hand = handNow();
        if (hand === 'marks') return setMark(programme, id, { at: player.time });
        const found =
          hand === 'beats'
            ? programme.beats[id]
            : hand === 'hits'
              ? programme.hits[id]
              : programme.pieces[id];
        const to = playheadIn(programme, found?.material);
        if (hand === 'beats') return moveBeat(programme, id, to);
        return (hand === 'hits' ? trimHit : trimPiece)(programme, id, edge, to);
      }),

    split: () => {
      const programme = desk.programme();
      const hand = handNow();
      const under = things().find(({ start, end }) => start < player.time && player.time < end);
      const id = pickedNow().at(-1) ?? under?.id ?? '';
      if (hand === 'pieces')
        make(
          splitPiece(programme, id, playheadIn(programme, programme.pieces[id]?.material), newId),
        );
      else if (hand === 'hits')
        make(splitHit(programme, id, playheadIn(programme, programme.hits[id]?.material), newId));
      else note('Only pieces, hits and cues can be split. Take one of them in hand.');
    },

    join: () => {
      if (handNow() !== 'pieces') {
        note('Only pieces and cues can be joined. Take one of them in hand.');
        return;
      }
      withPicked((ids, programme) => {
        const all = things();
        const next = all[all.findIndex(({ id }) => id === ids.at(-1)) + 1];
        return joinPieces(programme, ids.length > 1 || !next ? ids : [...ids, next.id]);
      });
    },

    /** Plays what is picked; an instant with a little after it. */
    play: () => {
      const stretch = pickedStretch();
      if (!stretch) {
        player.toggle();
        return;
      }
      const short = stretch.end - stretch.start < AFTER_INSTANT;
      player.play(short ? { ...stretch, end: add(stretch.start, AFTER_INSTANT) } : stretch);
    },
    goOn: () => {
      step(1);
      hold.play();
    },

    acceptHits: () => withPicked((ids, programme) => acceptHits(programme, ids)),

    halve: () => withPulse(halvePulse),
    double: () => withPulse((programme, material) => doublePulse(programme, material, newId)),
    shiftBars: (by: 1 | -1) =>
      withPulse((programme, material) => shiftBars(programme, material, by)),
    shiftHalf: () => withPulse(shiftHalfBeat),
    setMetre: (metre: Metre) =>
      withPulse((programme, material) => metreFromHere(programme, material, metre)),
    nextMetre: () =>
      withPulse((programme, material) => {
        const now = metreAt(beatsInOrder(programme, material), pickedBeat()?.at ?? ZERO);
        const next = METRES[(METRES.indexOf(now) + 1) % METRES.length] ?? '4/4';
        return metreFromHere(programme, material, next);
      }),
    /** A bar begins with the picked beat, or with the one nearest to the playhead; once more takes that back. */
    firstBar: () => {
      const near = [...thingsOf(desk.programme(), 'beats')].sort(
        (a, b) => Math.abs(a.start - player.time) - Math.abs(b.start - player.time),
      )[0];
      const id = pickedNow().at(-1) ?? near?.id;
      if (id !== undefined) make(pinBar(desk.programme(), id));
    },
    /** Fixes the picked beats where they are, or sets them free where all are fixed. */
    fix: () => {
      const programme = desk.programme();
      const stretch = pickedStretch();
      const beats = pickedNow().flatMap((id) => programme.beats[id] ?? []);
      const [first] = beats;
      if (handNow() !== 'beats' || !stretch || !first) {
        note('Pick the beats to fix first.');
        return;
      }
      const range = {
        start: materialTime(programme, first.material, stretch.start),
        end: materialTime(programme, first.material, stretch.end),
      };
      make(fixBeats(programme, first.material, range, !beats.every((beat) => beat.fixed)));
    },
  };
  return { hold, pickedNow, pickedStretch, pulseMaterial };
}
