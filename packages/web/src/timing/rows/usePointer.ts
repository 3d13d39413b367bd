/** Hands on the page of rows: seeking, selecting, dragging edges, cues and seams, drawing new cues. */
import { useEffect, useMemo, useRef, useState, type PointerEvent, type RefObject } from 'react';
import type { Id } from '@cadence/core/programme/programme.ts';
import { within } from '@cadence/core/time/range.ts';
import { nearestFrame } from '@cadence/core/time/frameRate.ts';
import { add, clamp, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { draft, keepDraft, newId } from '../../desk/desk.ts';
import { currentCues, currentStrand, openNow, store } from '../../desk/store.ts';
import { looked, picked, selected, tookStrand } from '../../desk/view.ts';
import { player } from '../../playback/player.ts';
import { scrubber } from '../../playback/scrub.ts';
import { playAround } from '../../weaving/weaving.ts';
import { instantAt, ticksOf, type Page, type Point } from '@cadence/core/rows/page.ts';
import { around, dragEdit, draggedWith, movingTimes } from '@cadence/core/rows/drag.ts';
import { catchesIn, snapped, type Snapped } from '@cadence/core/rows/snapping.ts';
import { pickOf, targetAt, type Target } from '@cadence/core/rows/target.ts';
import { thingsOf } from '@cadence/core/rows/things.ts';

/** How far the pointer must go before a press becomes a drag, in pixels. */
const SLACK = 3;

/** What the pointer looks like over a target. */
const cursorOf: Readonly<Record<Target['kind'], string>> = {
  edge: 'ew-resize',
  slope: 'ew-resize',
  seam: 'col-resize',
  cue: 'grab',
  word: 'ew-resize',
  lane: 'crosshair',
  mark: 'grab',
  beat: 'ew-resize',
  thingEdge: 'ew-resize',
  wave: 'text',
};

interface Held {
  readonly target: Target;
  readonly from: Ticks;
  readonly pressed: { readonly x: number; readonly y: number };
  readonly selection: readonly Id[];
  readonly picked: readonly Id[];
  readonly band: boolean;
  /** One id for the cue that a drag in the empty lane makes, however often it is drawn anew. */
  readonly id: Id;
  moved: boolean;
}

export interface Hint {
  readonly x: number;
  readonly y: number;
  readonly text: string;
}

interface Place extends Point {
  /** Pixels from the top of the row. */
  readonly y: number;
  /** Pixels from the top of the view to the top of the row. */
  readonly top: number;
}

/** The one cue that a target belongs to. */
const cueOf = (target: Target): Id | undefined =>
  target.kind === 'cue' ||
  target.kind === 'edge' ||
  target.kind === 'slope' ||
  target.kind === 'word'
    ? target.cue
    : undefined;

/** The strand that a target lies on. */
function strandOf(target: Target): Id | undefined {
  if (target.kind === 'lane') return target.strand;
  const cue = target.kind === 'seam' ? target.before : cueOf(target);
  return openNow().programme.cues[cue ?? '']?.strand;
}

/** What the pointer is over, of what is in hand. */
function aim(page: Page, place: Place): Target {
  const { programme } = openNow();
  const { hand } = store.getState().view;
  return targetAt(page, programme, currentCues(programme), hand, place, place.y);
}

export function usePointer(
  page: Page,
  scroller: RefObject<HTMLDivElement | null>,
  editText: (cue: Id) => void,
) {
  const held = useRef<Held | null>(null);
  const [hint, setHint] = useState<Hint | null>(null);
  const [band, setBand] = useState<{ start: Ticks; end: Ticks } | null>(null);

  const tools = useMemo(() => {
    const pointUnder = (event: { clientX: number; clientY: number }): Place => {
      const view = scroller.current;
      const inner = view?.firstElementChild?.getBoundingClientRect();
      const outer = view?.getBoundingClientRect();
      if (!inner || !outer) return { row: 0, x: 0, y: 0, top: 0 };
      const down = event.clientY - inner.top;
      const row = Math.max(0, Math.floor(down / page.shape.step));
      return {
        row,
        x: event.clientX - inner.left,
        y: down - row * page.shape.step,
        top: inner.top + row * page.shape.step - outer.top,
      };
    };
    const inside = (time: Ticks) => clamp(time, 0 as Ticks, openNow().programme.facts.length);
    const stop = () => {
      held.current = null;
      scrubber.end();
      setHint(null);
      setBand(null);
    };
    const tell = (event: { clientX: number; clientY: number }, time: Ticks, more = '') => {
      const { frameRate, startTimecode } = openNow().programme.facts;
      const text = formatTimecode(add(nearestFrame(time, frameRate), startTimecode), frameRate);
      setHint({ x: event.clientX, y: event.clientY, text: text + more });
    };
    /** Where a drag to `to` comes to rest, by the switches and the Alt key. */
    const rest = (hold: Held, to: Ticks, free: boolean): Snapped => {
      const { snap, snapTo, reach } = store.getState().view;
      if (!snap || free) return { to, name: null };
      const { programme } = openNow();
      const near = ticksOf(page, reach);
      const moving = movingTimes(programme, hold.target, hold.from, hold.picked);
      const dragged = draggedWith(hold.target, hold.selection, hold.picked);
      const window = around(page, moving, [hold.from, to], near);
      const catches = catchesIn(programme, window, snapTo, dragged);
      // The playhead is something to put an edge on, but does not catch itself.
      if (hold.target.kind !== 'wave') catches.push({ at: player.time, name: 'playhead' });
      return snapped(hold.from, to, moving, catches, near);
    };
    const select = (hold: Held, event: PointerEvent, to: Ticks) => {
      const { programme } = openNow();
      const { hand } = store.getState().view;
      const range = hold.from < to ? { start: hold.from, end: to } : { start: to, end: hold.from };
      setBand(range);
      const found =
        hand === 'cues'
          ? within(currentCues(programme), range)
          : thingsOf(programme, hand).filter(
              (thing) => thing.start < range.end && thing.end >= range.start,
            );
      const before = hand === 'cues' ? hold.selection : hold.picked;
      const ids = new Set(found.map(({ id }) => id));
      const all = [...before.filter((id) => !ids.has(id)), ...ids];
      store.dispatch(hand === 'cues' ? selected(all) : picked(all));
      tell(event, to, `, ${ids.size} selected`);
    };
    const drag = (hold: Held, event: PointerEvent) => {
      const { programme } = openNow();
      const wanted = inside(instantAt(page, pointUnder(event)));
      if (hold.band) {
        select(hold, event, wanted);
        return;
      }
      const { to, name } = rest(hold, wanted, event.altKey);
      if (store.getState().view.scrub) scrubber.move(programme, to);
      const caught = name === null ? '' : `, ${name}`;
      if (hold.target.kind === 'wave') {
        const at = name === null ? nearestFrame(to, programme.facts.frameRate) : to;
        player.seek(inside(at));
        tell(event, at, caught);
        return;
      }
      const edit = dragEdit(programme, hold.target, [hold.from, to], hold, () => hold.id);
      draft(edit);
      const { shown } = openNow();
      const at =
        hold.target.kind === 'cue'
          ? shown.cues[hold.target.cue]?.start
          : hold.target.kind === 'mark'
            ? shown.marks[hold.target.id]?.at
            : to;
      tell(event, at ?? to, edit?.note ? `, ${edit.note}` : caught);
    };
    return { pointUnder, inside, stop, drag };
  }, [page, scroller]);

  useEffect(() => {
    // Takes Esc before anything else does: it puts back what is in the hand.
    const key = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || !held.current) return;
      event.preventDefault();
      event.stopPropagation();
      draft(null);
      store.dispatch(selected(held.current.selection));
      store.dispatch(picked(held.current.picked));
      tools.stop();
    };
    document.addEventListener('keydown', key, true);
    return () => document.removeEventListener('keydown', key, true);
  }, [tools]);

  // At most one drag is worked out for each screen frame.
  const waiting = useRef<{ event: PointerEvent; frame: number } | null>(null);

  const handlers = {
    onPointerDown: (event: PointerEvent<HTMLDivElement>) => {
      const onText = event.target instanceof HTMLElement && event.target.closest('textarea');
      const onBar =
        event.clientX >=
        (scroller.current?.firstElementChild?.getBoundingClientRect().right ?? 0) + 4;
      if (event.button !== 0 || onText || onBar) return;
      const place = tools.pointUnder(event);
      const { view } = store.getState();
      const target = aim(page, place);
      const cue = cueOf(target);
      const strand = strandOf(target);
      const elsewhere = strand !== undefined && strand !== currentStrand(openNow().programme);
      if (elsewhere) store.dispatch(tookStrand(strand));
      // What is selected is all of one strand.
      const more = !elsewhere && (event.shiftKey || event.ctrlKey || event.metaKey);
      const chosen = (now: readonly Id[], id: Id) => {
        if (more) return now.includes(id) ? now.filter((each) => each !== id) : [...now, id];
        return now.includes(id) ? now : [id];
      };
      const pick = pickOf(target);
      const before = elsewhere ? [] : view.selection;
      const selection = cue === undefined ? before : chosen(before, cue);
      const picks = pick === null ? view.picked : chosen(view.picked, pick);
      if (cue !== undefined) store.dispatch(selected(selection));
      if (pick !== null) {
        if (target.kind === 'mark' && view.hand !== 'marks')
          store.dispatch(looked({ hand: 'marks' }));
        store.dispatch(picked(picks));
      }
      const time = tools.inside(instantAt(page, place));
      held.current = {
        target,
        from: time,
        pressed: { x: event.clientX, y: event.clientY },
        selection,
        picked: picks,
        band: event.shiftKey && cue === undefined && pick === null,
        id: newId(),
        moved: false,
      };
      event.currentTarget.setPointerCapture(event.pointerId);
      (scroller.current?.firstElementChild as HTMLElement | null)?.focus({ preventScroll: true });
      if (!event.shiftKey && (target.kind === 'wave' || target.kind === 'lane')) player.seek(time);
    },
    onPointerMove: (event: PointerEvent<HTMLDivElement>) => {
      const hold = held.current;
      if (!hold) {
        const place = tools.pointUnder(event);
        event.currentTarget.style.cursor = cursorOf[aim(page, place).kind];
        return;
      }
      const gone = Math.hypot(event.clientX - hold.pressed.x, event.clientY - hold.pressed.y);
      if (!hold.moved && gone < SLACK) return;
      hold.moved = true;
      if (waiting.current) {
        waiting.current.event = event;
        return;
      }
      waiting.current = {
        event,
        frame: requestAnimationFrame(() => {
          const latest = waiting.current?.event;
          waiting.current = null;
          if (held.current && latest) tools.drag(held.current, latest);
        }),
      };
    },
    onPointerUp: (event: PointerEvent<HTMLDivElement>) => {
      const hold = held.current;
      if (!hold) return;
      if (waiting.current) cancelAnimationFrame(waiting.current.frame);
      waiting.current = null;
      if (hold.moved) {
        tools.drag(hold, event);
        keepDraft();
        // An edge of a word that was let go is heard at once, where dragging is heard.
        if (hold.target.kind === 'word' && store.getState().view.scrub) {
          const at = instantAt(page, tools.pointUnder(event));
          playAround({ start: at, end: at });
        }
        if (hold.target.kind === 'lane' && openNow().programme.cues[hold.id]) {
          store.dispatch(selected([hold.id]));
          editText(hold.id);
        }
      } else if (!event.shiftKey && !event.ctrlKey && !event.metaKey) {
        const cue = cueOf(hold.target);
        const pick = pickOf(hold.target);
        if (pick !== null) store.dispatch(picked([pick]));
        else store.dispatch(selected(cue === undefined ? [] : [cue]));
      }
      tools.stop();
    },
    onPointerCancel: () => {
      draft(null);
      tools.stop();
    },
    onDoubleClick: (event: React.MouseEvent<HTMLDivElement>) => {
      const place = tools.pointUnder(event);
      const target = aim(page, place);
      if (target.kind === 'cue' || target.kind === 'edge') editText(target.cue);
    },
  };
  return { handlers, hint, band, pointUnder: tools.pointUnder };
}
