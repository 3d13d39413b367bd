/** The threads of a draft, as a drawing that can be taken in hand. */
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { framesLong, type Movement } from '@cadence/core/movement/movement.ts';
import { framesOf } from '@cadence/core/movement/threads.ts';
import { moveLandings, wordAt } from '@cadence/core/programme/edits/patterns/landings.ts';
import type { Cue, Programme } from '@cadence/core/programme/programme.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import type { Draft } from '@cadence/core/scene/movingText.ts';
import type { TextUnit } from '@cadence/core/scene/units.ts';
import { frames, nominalRate } from '@cadence/core/time/frameRate.ts';
import { add, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { draft as show, keepDraft, make } from '../desk/desk.ts';
import { openNow } from '../desk/store.ts';
import { player } from '../playback/player.ts';
import { useTimeFollower } from '../playback/usePlayer.ts';
import { ACROSS, FROM, ROW, RULER, WIDE } from './draftSizes.ts';
import classes from './PatternsPlace.module.css';

/** How wide a timecode of the ruler is. */
const LABEL = 66;
/** At most so many threads are drawn; the others are counted. */
export const MOST = 40;
/** How near a slope is taken in hand. */
const REACH = 4;

interface Props {
  readonly programme: Programme;
  readonly cue: Cue;
  readonly movement: Movement;
  readonly draft: Draft;
  readonly change: ((part: Partial<Movement>) => Edit) | undefined;
}

/** What is in the hand: a slope, or threads by where they land. */
interface Held {
  readonly x: number;
  /** Pixels of the screen for a frame. */
  readonly frame: number;
  readonly edit: (by: number) => Edit | undefined;
}

export function Threads({ programme, cue, movement, draft, change }: Props) {
  const { frameRate, startTimecode } = programme.facts;
  const { comes, goes, threads, time } = draft;
  const { comesIn } = movement;
  const drawing = useRef<SVGSVGElement>(null);
  // One stop for Tab, at the thread that was reached last; arrow keys go from thread to thread.
  const [reached, setReached] = useState(0);
  const [held, setHeld] = useState<Held | null>(null);
  /** The threads that move together, by where they begin in the text. */
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const across = (count: number) => FROM + (ACROSS * count) / time.length;
  const rows = comes.units.slice(0, MOST);
  const height = rows.length * ROW + RULER;
  /** Which part that goes a part that comes in is in. */
  const goesWith = (from: number) => {
    const place = goes.units.findIndex((unit) => unit.from <= from && from < unit.to);
    return threads.going[Math.max(0, place)];
  };
  const movesByWord = ({ from }: TextUnit) => comesIn?.when === 'said' && wordAt(cue, from) >= 0;
  const together = (from: number) => (chosen.has(from) ? [...chosen] : [from]);
  const moved = (from: number, by: number) =>
    moveLandings(openNow().programme, cue.id, together(from), by);
  const longer = (phase: 'comesIn' | 'goes') => {
    const of = movement[phase];
    if (!of || !change) return undefined;
    const before = of.takes ? framesOf(of.takes, time) : 0;
    const grows = phase === 'comesIn' && comesIn?.arrives === 'begins' ? 1 : -1;
    return (by: number) =>
      change({
        [phase]: { ...of, takes: framesLong(Math.max(0, Math.round(before + grows * by))) },
      });
  };
  const take = (event: PointerEvent, edit: Held['edit'] | undefined) => {
    const box = drawing.current?.getBoundingClientRect();
    if (!edit || !box || event.button !== 0) return;
    event.preventDefault();
    drawing.current?.setPointerCapture(event.pointerId);
    setHeld({ x: event.clientX, frame: ((box.width / WIDE) * ACROSS) / time.length, edit });
  };
  const letGo = (keep: boolean) => {
    if (!held) return;
    if (keep) keepDraft();
    else show(null);
    setHeld(null);
  };
  const choose = (from: number) => {
    const next = new Set(chosen);
    if (!next.delete(from)) next.add(from);
    setChosen(next);
  };
  const onKey = (event: KeyboardEvent<SVGGElement>, unit: TextUnit) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    const to =
      event.key === 'ArrowDown'
        ? event.currentTarget.nextElementSibling
        : event.key === 'ArrowUp'
          ? event.currentTarget.previousElementSibling
          : undefined;
    if (step !== undefined && movesByWord(unit))
      make(moved(unit.from, step * (event.shiftKey ? 10 : 1)));
    else if (to instanceof SVGGElement) to.focus();
    else if (event.key === ' ' && movesByWord(unit)) choose(unit.from);
    else return;
    event.preventDefault();
  };
  const seconds = Math.max(1, Math.ceil(time.length / nominalRate(frameRate) / 6));
  const ticksAt = Array.from(
    { length: Math.floor(time.length / (seconds * nominalRate(frameRate))) + 1 },
    (_, at) => at * seconds * nominalRate(frameRate),
  ).filter((count) => across(count) < WIDE - LABEL);
  return (
    <svg
      ref={drawing}
      viewBox={`0 0 ${WIDE} ${height}`}
      role="group"
      aria-label="Threads of the cue"
      data-kind={programme.strands[cue.strand]?.kind}
      onPointerMove={(event) => {
        const edit = held?.edit(Math.round((event.clientX - held.x) / held.frame));
        if (edit) show(edit);
      }}
      onPointerUp={() => letGo(true)}
      onPointerCancel={() => letGo(false)}
    >
      {time.beats.map((beat) => (
        <line
          key={`b${beat}`}
          className={classes.beat}
          {...{ x1: across(beat), x2: across(beat), y1: 0, y2: height - RULER }}
        />
      ))}
      {rows.map((unit, at) => {
        const coming = threads.coming[at];
        const going = goesWith(unit.from);
        if (!coming || !going) return null;
        const [top, bottom] = [at * ROW + 5, at * ROW + ROW - 3];
        const [begins = 0, lands = 0, leaves = 0, gone = 0] = [
          ...[coming.begins, coming.lands],
          ...[going.leaves, going.gone],
        ].map(across);
        const canMove = movesByWord(unit);
        const told = `${unit.text.trim()}: begins at frame ${coming.begins}, has landed at ${coming.lands}, leaves at ${going.leaves}, is gone at ${going.gone}`;
        return (
          <g
            key={unit.from}
            tabIndex={at === Math.min(reached, rows.length - 1) ? 0 : -1}
            onFocus={() => setReached(at)}
            role="button"
            aria-label={told}
            aria-pressed={chosen.has(unit.from)}
            className={classes.thread}
            onKeyDown={(event) => onKey(event, unit)}
          >
            <rect
              className={classes.ringed}
              {...{ x: 0, y: top - 3, width: WIDE, height: bottom - top + 6 }}
            />
            <text x={0} y={bottom - 3} className={classes.unit}>
              {unit.text.trim().slice(0, 12)}
            </text>
            <polygon
              className={classes.slope}
              points={`${begins},${bottom} ${lands},${top} ${lands},${bottom}`}
            />
            <rect
              className={classes.band}
              {...{ x: lands, y: top, height: bottom - top }}
              width={Math.max(0, leaves - lands)}
              data-moves={canMove}
              onPointerDown={(event) => {
                if (!canMove) return;
                if (event.shiftKey || event.ctrlKey || event.metaKey) choose(unit.from);
                else take(event, (by) => moved(unit.from, by));
              }}
            />
            <polygon
              className={classes.slope}
              points={`${leaves},${top} ${gone},${bottom} ${leaves},${bottom}`}
            />
            {change && comesIn && (
              <rect
                className={classes.handle}
                {...{ x: begins - REACH, y: top, height: bottom - top }}
                width={lands - begins + REACH}
                onPointerDown={(event) => take(event, longer('comesIn'))}
              />
            )}
            {change && movement.goes && (
              <rect
                className={classes.handle}
                {...{ x: leaves, y: top, height: bottom - top }}
                width={gone - leaves + REACH}
                onPointerDown={(event) => take(event, longer('goes'))}
              />
            )}
            <title>{told}</title>
          </g>
        );
      })}
      <line
        className={classes.ground}
        {...{ x1: FROM, x2: WIDE, y1: height - RULER + 2, y2: height - RULER + 2 }}
      />
      {ticksAt.map((count) => (
        <text key={count} x={across(count)} y={height - 5} className={classes.ruler}>
          {formatTimecode(add(add(cue.start, frames(count, frameRate)), startTimecode), frameRate)}
        </text>
      ))}
      <Head cue={cue} height={height - RULER} across={across} programme={programme} />
    </svg>
  );
}

/** The playhead over the threads; moved without drawing them again. */
function Head({
  cue,
  height,
  across,
  programme,
}: {
  cue: Cue;
  height: number;
  across: (count: number) => number;
  programme: Programme;
}) {
  const line = useRef<SVGLineElement>(null);
  const move = (time: Ticks): void => {
    const count = (time - cue.start) / frames(1, programme.facts.frameRate);
    const isIn = time >= cue.start && time <= cue.end;
    line.current?.setAttribute('visibility', isIn ? 'visible' : 'hidden');
    if (isIn) line.current?.setAttribute('transform', `translate(${across(count)} 0)`);
  };
  useTimeFollower(move);
  useEffect(() => move(player.time));
  return <line ref={line} className={classes.playhead} x1={0} x2={0} y1={0} y2={height} />;
}
