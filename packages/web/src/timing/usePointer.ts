/** Hands on the page of rows: seeking, selecting, dragging edges, cues and seams, drawing new cues. */
import { useEffect, useMemo, useRef, useState, type PointerEvent, type RefObject } from 'react';
import type { Id } from '@cadence/core/programme/programme.ts';
import { within } from '@cadence/core/time/range.ts';
import { nearestFrame } from '@cadence/core/time/frameRate.ts';
import { add, clamp, subtract, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { draft, keepDraft, newId } from '../app/edit.ts';
import { currentCues, currentStrand, openNow, store } from '../app/store.ts';
import { selected } from '../app/view.ts';
import { player } from '../playback/player.ts';
import { instantAt, ticksOf, type Page, type Point } from './geometry.ts';
import {
  cursorOf,
  dragEdit,
  movingTimes,
  snapTimes,
  snapped,
  targetAt,
  type Target,
} from './pointing.ts';

/** How far the pointer must go before a press becomes a drag, and how near things snap, in pixels. */
const SLACK = 3;
const SNAP = 8;

interface Held {
  readonly target: Target;
  readonly from: Ticks;
  readonly pressed: { readonly x: number; readonly y: number };
  readonly selection: readonly Id[];
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

export function usePointer(
  page: Page,
  scroller: RefObject<HTMLDivElement | null>,
  editText: (cue: Id) => void,
) {
  const held = useRef<Held | null>(null);
  const [hint, setHint] = useState<Hint | null>(null);
  const [band, setBand] = useState<{ start: Ticks; end: Ticks } | null>(null);

  const tools = useMemo(() => {
    const placeOf = (event: { clientX: number; clientY: number }): Place => {
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
      setHint(null);
      setBand(null);
    };
    const tell = (event: { clientX: number; clientY: number }, time: Ticks, more = '') => {
      const { frameRate, startTimecode } = openNow().programme.facts;
      const text = formatTimecode(add(nearestFrame(time, frameRate), startTimecode), frameRate);
      setHint({ x: event.clientX, y: event.clientY, text: text + more });
    };
    const drag = (hold: Held, event: PointerEvent) => {
      const { programme } = openNow();
      const strand = currentStrand(programme);
      let to = inside(instantAt(page, placeOf(event)));
      if (hold.band) {
        const range =
          hold.from < to ? { start: hold.from, end: to } : { start: to, end: hold.from };
        setBand(range);
        const found = within(currentCues(programme), range).map((cue) => cue.id);
        store.dispatch(selected([...hold.selection.filter((id) => !found.includes(id)), ...found]));
        tell(event, to, `, ${found.length} selected`);
        return;
      }
      if (hold.target.kind === 'wave') {
        player.seek(to);
        tell(event, to);
        return;
      }
      if (store.getState().view.snap && !event.altKey) {
        const reach = ticksOf(page, SNAP);
        const dragged =
          hold.target.kind === 'cue'
            ? hold.selection
            : hold.target.kind === 'edge'
              ? [hold.target.cue]
              : hold.target.kind === 'seam'
                ? [hold.target.before, hold.target.after]
                : [];
        const wide = ticksOf(page, 400);
        const around = { start: subtract(to, wide), end: add(to, wide) };
        const moving = movingTimes(programme, hold.target, hold.from);
        for (const time of moving) {
          const there = (time + to - hold.from) as Ticks;
          around.start = Math.min(around.start, there - reach) as Ticks;
          around.end = Math.max(around.end, there + reach) as Ticks;
        }
        const candidates = snapTimes(programme, strand, around, player.time, dragged);
        to = snapped(hold.from, to, moving, candidates, reach);
      }
      const edit = dragEdit(
        programme,
        strand,
        hold.target,
        hold.from,
        to,
        hold.selection,
        () => hold.id,
      );
      draft(edit);
      const cue = hold.target.kind === 'cue' ? openNow().shown.cues[hold.target.cue] : undefined;
      tell(event, cue ? cue.start : to, edit?.note ? `  ${edit.note}` : '');
    };
    return { placeOf, inside, stop, drag };
  }, [page, scroller]);

  useEffect(() => {
    // Takes Esc before anything else does: it puts back what is in the hand.
    const key = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || !held.current) return;
      event.preventDefault();
      event.stopPropagation();
      draft(null);
      store.dispatch(selected(held.current.selection));
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
      const place = tools.placeOf(event);
      const { programme } = openNow();
      const target = targetAt(page, currentCues(programme), place, place.y);
      const cue = target.kind === 'cue' || target.kind === 'edge' ? target.cue : undefined;
      const now = store.getState().view.selection;
      let selection = now;
      if (cue !== undefined) {
        if (event.shiftKey || event.ctrlKey || event.metaKey)
          selection = now.includes(cue) ? now.filter((id) => id !== cue) : [...now, cue];
        else if (!now.includes(cue)) selection = [cue];
        store.dispatch(selected(selection));
      }
      const time = tools.inside(instantAt(page, place));
      held.current = {
        target,
        from: time,
        pressed: { x: event.clientX, y: event.clientY },
        selection,
        band: event.shiftKey && cue === undefined,
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
        const place = tools.placeOf(event);
        const target = targetAt(page, currentCues(openNow().programme), place, place.y);
        event.currentTarget.style.cursor = cursorOf[target.kind];
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
        if (hold.target.kind === 'lane' && openNow().programme.cues[hold.id]) {
          store.dispatch(selected([hold.id]));
          editText(hold.id);
        }
      } else if (!event.shiftKey && !event.ctrlKey && !event.metaKey) {
        const cue =
          hold.target.kind === 'cue' || hold.target.kind === 'edge' ? hold.target.cue : undefined;
        store.dispatch(selected(cue === undefined ? [] : [cue]));
      }
      tools.stop();
    },
    onPointerCancel: () => {
      draft(null);
      tools.stop();
    },
    onDoubleClick: (event: React.MouseEvent<HTMLDivElement>) => {
      const place = tools.placeOf(event);
      const target = targetAt(page, currentCues(openNow().programme), place, place.y);
      if (target.kind === 'cue' || target.kind === 'edge') editText(target.cue);
    },
  };
  return { handlers, hint, band, placeOf: tools.placeOf };
}
