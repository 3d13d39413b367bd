/** The draft of a cue: each part of its text as a thread, with a slope where it comes and one where it goes. */
import { Button } from '@mantine/core';
import { useEffect, useRef } from 'react';
import { styleOf } from '@cadence/core/programme/patterns.ts';
import type { Movement } from '@cadence/core/movement/movement.ts';
import type { Cue, Programme } from '@cadence/core/programme/programme.ts';
import { layOut } from '@cadence/core/scene/layout.ts';
import { draftOf } from '@cadence/core/scene/movingText.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { frames, nominalRate } from '@cadence/core/time/frameRate.ts';
import { add, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { player } from '../playback/player.ts';
import { useTimeFollower } from '../playback/usePlayer.ts';
import { shelf } from '../picture/studio.ts';
import classes from './PatternsPlace.module.css';

/** Of the drawing, in its own units: its width, where threads begin, the height of one, and of the ruler below. */
const [WIDE, FROM, ROW, RULER] = [600, 84, 22, 22];
/** How wide a timecode of the ruler is. */
const LABEL = 66;
/** At most so many threads are drawn; the others are counted. */
const MOST = 40;

interface Props {
  readonly programme: Programme;
  readonly cue: Cue;
  readonly movement: Movement;
  readonly nudge: (by: number) => void;
}

export function Draft({ programme, cue, movement, nudge }: Props) {
  const { frame, frameRate, startTimecode } = programme.facts;
  const layout = layOut(cue.text, styleOf(programme, cue), frame, shelf);
  const { comes, goes, threads, time } = draftOf(programme, cue, movement, layout, shelf);
  const across = (count: number) => FROM + ((WIDE - FROM - 4) * count) / time.length;
  const rows = comes.units.slice(0, MOST);
  const height = rows.length * ROW + RULER;
  /** Which part that goes a part that comes in is in. */
  const goesWith = (from: number) => {
    const place = goes.units.findIndex((unit) => unit.from <= from && from < unit.to);
    return threads.going[Math.max(0, place)];
  };
  const notes = [
    threads.shortened > 0 &&
      `${plural(threads.shortened, 'part has', 'parts have')} less time than the movement takes.`,
    threads.without > 0 &&
      `${plural(threads.without, 'part has no time of its own, and is', 'parts have no time of their own, and are')} spread.`,
    comes.units.length > MOST && `${comes.units.length - MOST} more are not drawn.`,
  ].filter((note) => note !== false);
  const seconds = Math.max(1, Math.ceil(time.length / nominalRate(frameRate) / 6));
  const ticksAt = Array.from(
    { length: Math.floor(time.length / (seconds * nominalRate(frameRate))) + 1 },
    (_, at) => at * seconds * nominalRate(frameRate),
  ).filter((count) => across(count) < WIDE - LABEL);
  return (
    <section className={classes.draft} aria-label="Draft">
      <div className={classes.head}>
        <h2>Draft</h2>
        <span className="quiet">each {comes.by} as a thread: comes in, stays, goes</span>
        <span className="spring" />
        <Button disabled={!movement.comesIn} onClick={() => nudge(1)}>
          A frame earlier <kbd className="key">Alt ,</kbd>
        </Button>
        <Button disabled={!movement.comesIn} onClick={() => nudge(-1)}>
          A frame later <kbd className="key">Alt .</kbd>
        </Button>
      </div>
      <div className={classes.threads}>
        <svg
          viewBox={`0 0 ${WIDE} ${height}`}
          role="img"
          aria-label="Threads of the cue"
          data-kind={programme.strands[cue.strand]?.kind}
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
            const x = [coming.begins, coming.lands, going.leaves, going.gone].map(across);
            return (
              <g key={unit.from}>
                <text x={0} y={bottom - 3} className={classes.unit}>
                  {unit.text.trim().slice(0, 12)}
                </text>
                <polygon
                  className={classes.slope}
                  points={`${x[0]},${bottom} ${x[1]},${top} ${x[1]},${bottom}`}
                />
                <rect
                  className={classes.band}
                  {...{ x: x[1], y: top, height: bottom - top }}
                  width={Math.max(0, (x[2] ?? 0) - (x[1] ?? 0))}
                />
                <polygon
                  className={classes.slope}
                  points={`${x[2]},${top} ${x[3]},${bottom} ${x[2]},${bottom}`}
                />
                <title>
                  {`${unit.text.trim()}: begins at frame ${coming.begins}, has landed at ${coming.lands}, leaves at ${going.leaves}, is gone at ${going.gone}`}
                </title>
              </g>
            );
          })}
          <line
            className={classes.ground}
            {...{ x1: FROM, x2: WIDE, y1: height - RULER + 2, y2: height - RULER + 2 }}
          />
          {ticksAt.map((count) => (
            <text key={count} x={across(count)} y={height - 5} className={classes.ruler}>
              {formatTimecode(
                add(add(cue.start, frames(count, frameRate)), startTimecode),
                frameRate,
              )}
            </text>
          ))}
          <Head cue={cue} height={height - RULER} across={across} programme={programme} />
        </svg>
      </div>
      {notes.length > 0 && <p className={classes.note}>{notes.join(' ')}</p>}
    </section>
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
