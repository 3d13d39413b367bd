/** The text of a cue in hand on the picture: dragged, sized, broken at a width and turned, with guides to draw it to. */
import { useElementSize } from '@mantine/hooks';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { cuesInOrder, strandsShown } from '@cadence/core/programme/order.ts';
import { movementOf, styleOf } from '@cadence/core/programme/patterns.ts';
import type { Cue, Id, Programme, TextStyle } from '@cadence/core/programme/programme.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import type { Box } from '@cadence/core/scene/drawing.ts';
import {
  brokenTo,
  drawnTo,
  guidesOf,
  movedBy,
  pointOn,
  seenBox,
  sizedTo,
  turnedTo,
  type Drawn,
  type Guides,
  type TextInHand,
} from '@cadence/core/scene/placing.ts';
import { partsAt, smallestUnits } from '@cadence/core/scene/movingText.ts';
import { countFrames, frameAt } from '@cadence/core/time/frameRate.ts';
import { NO_PICTURES } from '@cadence/paint/stage.ts';
import { turnOf, type Point, type TextLayout } from '@cadence/core/scene/layout.ts';
import { boxOfGroup, membersOf } from '@cadence/core/scene/grouped.ts';
import { safeAreaOf } from '@cadence/core/scene/safeArea.ts';
import { layOutCue } from '@cadence/core/scene/stacking.ts';
import { isBlank, plainText } from '@cadence/core/text/lines.ts';
import { contains, firstEndingAfter } from '@cadence/core/time/range.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import { draft, keepDraft, make } from '../desk/desk.ts';
import { store, useApp, useShown } from '../desk/store.ts';
import { selected } from '../desk/view.ts';
import { player } from '../playback/player.ts';
import { usePlayerState, useTimeFollower } from '../playback/usePlayer.ts';
import { shownOnly } from './shownOnly.ts';
import { shelf, stage } from './studio.ts';
import classes from './Hands.module.css';

/** In pixels of the screen: of a handle, of the arm that it is turned by, around the text, and how near a guide draws. */
const [HANDLE, ARM, ROUND, REACH] = [4.5, 24, 8, 6];
const CORNERS = [
  { x: 0, y: 0, name: 'upper left' },
  { x: 1, y: 0, name: 'upper right' },
  { x: 1, y: 1, name: 'lower right' },
  { x: 0, y: 1, name: 'lower left' },
] as const;

export interface HandsProps {
  /** The cue in hand; its handles are seen while it is. */
  readonly cue: Cue | undefined;
  /** The edit that gives it, or its pattern, part of a style. */
  readonly change: (cue: Cue, part: Partial<TextStyle>) => Edit;
}

type Restyling = (to: Point, alt: boolean) => { part: Partial<TextStyle>; drawn?: Drawn };

/** Takes something in hand. @param point  of the text that moves with the hand, on the frame */
type Take = (event: PointerEvent, restyle: Restyling, point?: Point) => void;

/** What is dragged: with which pointer position it began, and what it does. */
interface Held {
  readonly restyle: Restyling;
  readonly drawn: Drawn | undefined;
}

/** A cue on the picture, and the box of its text as it is seen, or of its group. */
interface Seen {
  readonly cue: Cue;
  /** The cue that says where it stands. */
  readonly of: Cue;
  /** How its own text is laid out. */
  readonly own: TextLayout;
  readonly hand: TextInHand;
  readonly box: Box;
}

/** The cues whose text is seen at an instant, the one in front last. */
function seenAt(programme: Programme, time: Ticks): Seen[] {
  const { frame } = programme.facts;
  return strandsShown(programme).flatMap((strand) => {
    const row = cuesInOrder(programme, strand.id);
    const seen: Seen[] = [];
    for (let at = firstEndingAfter(row, time); at < row.length; at++) {
      const cue = row[at];
      if (!cue || cue.start > time) break;
      if (!contains(cue, time) || cue.passage || isBlank(cue.text)) continue;
      const own = layOutCue(programme, row, at, shelf);
      // A group is taken as one, by its first cue.
      const [of = cue] = cue.group ? membersOf(row, cue.group.id) : [];
      const box = cue.group && boxOfGroup(programme, row, cue.group.id, shelf);
      const layout = box ? { ...own, box } : own;
      const style = styleOf(programme, of);
      const hand = { text: cue.text, style, frame, layout, shaper: shelf };
      seen.push({ cue, of, own, hand, box: seenBox(layout) });
    }
    return seen;
  });
}

export default function Hands({ cue, change }: HandsProps) {
  const whole = useShown((shown) => shown);
  const strand = useApp((state) => state.view.strand);
  const only = useApp((state) => state.view.only);
  const programme = useMemo(() => shownOnly(whole, only, strand), [whole, only, strand]);
  const { width, height } = programme.facts.frame;
  const safeBy = useApp((state) => state.view.safeBy);
  const { playing } = usePlayerState();
  const [time, setTime] = useState(player.time);
  useTimeFollower((now) => {
    if (!player.state().playing) setTime(now);
  });
  const { ref, width: onScreen } = useElementSize();
  const drawing = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<Held | null>(null);
  const isHeld = held !== null;
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (event.key !== 'Escape' || !isHeld) return;
      event.preventDefault();
      draft(null);
      setHeld(null);
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [isHeld]);
  // Nothing has its size before its letters are there.
  const [, setLetters] = useState(0);
  const texts = useRef(new WeakMap<object, string>());
  useEffect(() => {
    const wanted = seenAt(programme, time).filter(
      ({ cue: each, hand }) => texts.current.get(each.text) !== hand.style.family,
    );
    if (wanted.length === 0) return;
    for (const { cue: each, hand } of wanted) texts.current.set(each.text, hand.style.family);
    const prepare = async () => {
      await stage.ownFonts(programme);
      for (const { hand } of wanted) await shelf.prepare(hand.style.family, hand.text);
      setLetters((count) => count + 1);
    };
    // What went wrong is said where the picture is drawn.
    prepare().catch(() => wanted.forEach(({ cue: each }) => texts.current.delete(each.text)));
  }, [programme, time]);
  if (playing) return null;
  const all = seenAt(programme, time);
  const here = all.find((each) => each.cue.id === cue?.id);
  const others = all.filter((each) => each.of.id !== here?.of.id);
  const pixel = onScreen > 0 ? width / onScreen : 1;
  const onFrame = (event: PointerEvent): Point => {
    const { left = 0, top = 0 } = drawing.current?.getBoundingClientRect() ?? {};
    return { x: (event.clientX - left) * pixel, y: (event.clientY - top) * pixel };
  };
  const take: Take = (event, restyle, point) => {
    if (event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    drawing.current?.setPointerCapture(event.pointerId);
    // The point of the text is as far from the hand as it was when it was taken.
    const at = onFrame(event);
    const off = point ? { x: point.x - at.x, y: point.y - at.y } : { x: 0, y: 0 };
    const moved: Restyling = (to, alt) => restyle({ x: to.x + off.x, y: to.y + off.y }, alt);
    setHeld({ restyle: moved, drawn: undefined });
  };
  const letGo = (keep: boolean) => {
    if (!held) return;
    if (keep) keepDraft();
    else draft(null);
    setHeld(null);
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    if (!held || !here) return;
    const { part, drawn } = held.restyle(onFrame(event), event.altKey);
    draft(change(here.of, part));
    setHeld({ ...held, drawn });
  };
  const guides = (): Guides =>
    guidesOf(
      programme.facts.frame,
      safeAreaOf(safeBy).insets.map(({ inset }) => inset),
      others.map(({ box }) => box),
    );
  const takeWhole = (event: PointerEvent, { hand, box }: Seen) => {
    const [from, lines] = [onFrame(event), guides()];
    take(event, (to, alt) => {
      const by = { x: to.x - from.x, y: to.y - from.y };
      const moved = { ...box, x: box.x + by.x, y: box.y + by.y };
      const drawn = alt ? undefined : drawnTo(moved, lines, REACH * pixel);
      const whole = { x: by.x + (drawn?.by.x ?? 0), y: by.y + (drawn?.by.y ?? 0) };
      return { part: movedBy(hand, whole), ...(drawn && { drawn }) };
    });
  };
  const onKey = (event: KeyboardEvent, { hand, of }: Seen) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const way = {
      ArrowLeft: { x: -1, y: 0 },
      ArrowRight: { x: 1, y: 0 },
      ArrowUp: { x: 0, y: -1 },
      ArrowDown: { x: 0, y: 1 },
    }[event.key];
    if (!way) return;
    event.preventDefault();
    const step = event.shiftKey ? 10 : 1;
    make(change(of, movedBy(hand, { x: way.x * step, y: way.y * step })));
  };
  const choose = (id: Id) => store.dispatch(selected([id]));
  return (
    <div ref={ref} className={classes.hands}>
      {here && <Whole {...here} programme={programme} time={time} pixels={onScreen} />}
      <svg
        ref={drawing}
        viewBox={`0 0 ${width} ${height}`}
        role="group"
        aria-label="Text on the picture"
        onPointerMove={move}
        onPointerUp={() => letGo(true)}
        onPointerCancel={() => letGo(false)}
      >
        {held?.drawn?.across !== undefined && (
          <line
            className={classes.guide}
            {...{ x1: held.drawn.across, x2: held.drawn.across, y1: 0, y2: height }}
          />
        )}
        {held?.drawn?.down !== undefined && (
          <line
            className={classes.guide}
            {...{ x1: 0, x2: width, y1: held.drawn.down, y2: held.drawn.down }}
          />
        )}
        {others.map(({ cue: other, box }) => (
          <rect
            key={other.id}
            className={classes.other}
            {...{ x: box.x, y: box.y, width: box.w, height: box.h }}
            onPointerDown={() => choose(other.id)}
          >
            <title>Take this text in hand</title>
          </rect>
        ))}
        {here && (
          <Handles
            key={here.cue.id}
            seen={here}
            pixel={pixel}
            take={take}
            takeWhole={(event) => takeWhole(event, here)}
            onKey={(event) => onKey(event, here)}
          />
        )}
      </svg>
    </div>
  );
}

/** The text as it stands when all of it has come, faint, where the picture does not show all of it. */
function Whole({
  programme,
  cue,
  own,
  hand: { layout, frame },
  time,
  pixels,
}: Seen & { readonly programme: Programme; readonly time: Ticks; readonly pixels: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const scale = Math.min(2, window.devicePixelRatio);
  const movement = movementOf(programme, cue, styleOf(programme, cue).fade ?? 0);
  const since =
    frameAt(time, programme.facts.frameRate) - countFrames(cue.start, programme.facts.frameRate);
  const parts = movement && partsAt(programme, cue, movement, own, since, shelf);
  const isWhole =
    !movement ||
    !parts ||
    (parts.units.every(({ opacity, wipe }) => opacity === 1 && !wipe) &&
      parts.units.length === smallestUnits(programme, cue, movement, own, shelf).length);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, context.canvas.width, context.canvas.height);
    const { box } = own;
    const text = { kind: 'text', text: '', cue: cue.id, box, opacity: 1, layout: own } as const;
    const turn = turnOf(layout.box, own.style);
    const list = { ...frame, items: [{ ...text, ...(turn && { transform: turn }) }] };
    stage.draw(context, list, NO_PICTURES, context.canvas.width / frame.width);
  });
  if (isWhole) return null;
  const width = Math.round(pixels * scale);
  const height = Math.round((width * frame.height) / frame.width);
  return <canvas ref={canvas} className={classes.whole} {...{ width, height }} aria-hidden />;
}

function Handles({
  seen,
  pixel,
  take,
  takeWhole,
  onKey,
}: {
  seen: Seen;
  pixel: number;
  take: Take;
  takeWhole: (event: PointerEvent) => void;
  onKey: (event: KeyboardEvent) => void;
}) {
  const { hand, cue } = seen;
  const { w, h } = hand.layout.box;
  const at = (x: number, y: number) => pointOn(hand, { x, y });
  /** A point of the outline, which is a little around the text so that no handle covers a letter. */
  const around = (across: number, down: number) =>
    at(
      across + ((across * 2 - 1) * ROUND * pixel) / Math.max(1, w),
      down + ((down * 2 - 1) * (ROUND / 2) * pixel) / Math.max(1, h),
    );
  const outline = CORNERS.map((corner) => around(corner.x, corner.y));
  const [top, middle] = [around(0.5, 0), at(0.5, 0.5)];
  // The arm stands out of the upper side; into the text where the frame ends there.
  const turn = ((hand.style.turn ?? 0) * Math.PI) / 180;
  const arm = ARM * pixel;
  const out = { x: top.x + Math.sin(turn) * arm, y: top.y - Math.cos(turn) * arm };
  const isOut = out.y > 0 && out.x > 0 && out.x < hand.frame.width && out.y < hand.frame.height;
  const knob = isOut ? out : middle;
  const { x, y } = hand.layout.box;
  return (
    <>
      <polygon
        className={classes.text}
        points={outline.map((point) => `${point.x},${point.y}`).join(' ')}
        tabIndex={0}
        role="button"
        aria-label={`“${plainText(cue.text).replace(/\s+/g, ' ').slice(0, 40)}”, ${Math.round(x)} px across and ${Math.round(y)} px down: arrow keys move it by a pixel, with Shift by ten`}
        onPointerDown={takeWhole}
        onKeyDown={onKey}
      />
      {!cue.group && (
        <>
          {isOut && (
            <line className={classes.arm} {...{ x1: top.x, y1: top.y, x2: knob.x, y2: knob.y }} />
          )}
          {([0, 1] as const).map((side) => {
            const point = around(side, 0.5);
            return (
              <rect
                key={side}
                className={classes.side}
                data-side={side === 0 ? 'left' : 'right'}
                {...{ x: point.x - HANDLE * pixel * 0.7, y: point.y - HANDLE * pixel * 1.8 }}
                {...{ width: HANDLE * pixel * 1.4, height: HANDLE * pixel * 3.6 }}
                transform={`rotate(${hand.style.turn ?? 0} ${point.x} ${point.y})`}
                onPointerDown={(event) =>
                  take(event, (to) => ({ part: brokenTo(hand, side, to) }), at(side, 0.5))
                }
              >
                <title>Drag to break the lines at a width</title>
              </rect>
            );
          })}
          {CORNERS.map(({ name, ...corner }) => {
            const point = around(corner.x, corner.y);
            return (
              <rect
                key={name}
                className={classes.corner}
                {...{ x: point.x - HANDLE * pixel, y: point.y - HANDLE * pixel }}
                {...{ width: 2 * HANDLE * pixel, height: 2 * HANDLE * pixel }}
                data-corner={name}
                onPointerDown={(event) =>
                  take(event, (to) => ({ part: sizedTo(hand, corner, to) }), at(corner.x, corner.y))
                }
              >
                <title>Drag to size the text</title>
              </rect>
            );
          })}
          <circle
            className={classes.knob}
            {...{ cx: knob.x, cy: knob.y, r: HANDLE * pixel * 1.1 }}
            onPointerDown={(event) => take(event, (to, alt) => ({ part: turnedTo(hand, to, alt) }))}
          >
            <title>Drag to turn the text; Alt turns it freely</title>
          </circle>
        </>
      )}
    </>
  );
}
