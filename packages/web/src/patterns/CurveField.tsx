/** A curve of one's own: how far a movement has come, up, at each share of its time, across. */
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Curve } from '@cadence/core/movement/easing.ts';
import classes from './PatternsPlace.module.css';

/** The drawing: its size, and what is left around the square of time and way for curves that overshoot. */
const [WIDE, HIGH, ROUND] = [170, 156, 36];
const [ACROSS, UP] = [WIDE - 2 * ROUND, HIGH - 2 * ROUND];
/** How far a handle may be out of the square, up or down. */
const MOST = 1.3;
const STEP = 0.05;

const clamped = (value: number, least: number, most: number): number =>
  Math.round(Math.min(most, Math.max(least, value)) * 100) / 100;

interface Props {
  readonly curve: Curve;
  /** Called when a handle is let go. */
  readonly set: (curve: Curve) => void;
}

export function CurveField({ curve: kept, set }: Props) {
  const drawing = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<{ handle: 0 | 1; curve: Curve } | null>(null);
  const curve = held?.curve ?? kept;
  const x = (share: number) => ROUND + share * ACROSS;
  const y = (share: number) => HIGH - ROUND - share * UP;
  const withHandle = (handle: 0 | 1, across: number, up: number): Curve => {
    const [a, b] = [clamped(across, 0, 1), clamped(up, 1 - MOST, MOST)];
    return handle === 0 ? [a, b, curve[2], curve[3]] : [curve[0], curve[1], a, b];
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const box = drawing.current?.getBoundingClientRect();
    if (!held || !box) return;
    const scale = WIDE / box.width;
    const [left, top] = [(event.clientX - box.left) * scale, (event.clientY - box.top) * scale];
    const next = withHandle(held.handle, (left - ROUND) / ACROSS, (HIGH - ROUND - top) / UP);
    setHeld({ ...held, curve: next });
  };
  const letGo = () => {
    if (held) set(held.curve);
    setHeld(null);
  };
  const onKey = (event: KeyboardEvent, handle: 0 | 1) => {
    const way = {
      ArrowLeft: [-STEP, 0],
      ArrowRight: [STEP, 0],
      ArrowUp: [0, STEP],
      ArrowDown: [0, -STEP],
    }[event.key];
    if (!way) return;
    event.preventDefault();
    const [across, up] = handle === 0 ? [curve[0], curve[1]] : [curve[2], curve[3]];
    set(withHandle(handle, across + (way[0] ?? 0), up + (way[1] ?? 0)));
  };
  const handles = [
    { at: [curve[0], curve[1]], from: [0, 0], name: 'of the beginning' },
    { at: [curve[2], curve[3]], from: [1, 1], name: 'of the end' },
  ] as const;
  return (
    <svg
      ref={drawing}
      className={classes.curve}
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      role="group"
      aria-label="Curve of the movement: time across, way up"
      onPointerMove={move}
      onPointerUp={letGo}
      onPointerCancel={() => setHeld(null)}
    >
      <rect className={classes.square} {...{ x: x(0), y: y(1), width: ACROSS, height: UP }} />
      <path
        className={classes.way}
        d={`M${x(0)} ${y(0)}C${x(curve[0])} ${y(curve[1])} ${x(curve[2])} ${y(curve[3])} ${x(1)} ${y(1)}`}
      />
      {handles.map(({ at, from, name }, place) => (
        <g key={name}>
          <line
            className={classes.lever}
            {...{ x1: x(from[0]), y1: y(from[1]), x2: x(at[0]), y2: y(at[1]) }}
          />
          <circle
            className={classes.knob}
            {...{ cx: x(at[0]), cy: y(at[1]), r: 5 }}
            tabIndex={0}
            role="button"
            aria-label={`Handle ${name}: ${at[0]} of the time, ${at[1]} of the way; arrow keys move it`}
            onPointerDown={(event) => {
              event.preventDefault();
              drawing.current?.setPointerCapture(event.pointerId);
              setHeld({ handle: place as 0 | 1, curve });
            }}
            onKeyDown={(event) => onKey(event, place as 0 | 1)}
          />
        </g>
      ))}
    </svg>
  );
}
