/** The equation: text, time and speed, two of them held, the third following; and the speeds that do not judder. */
import { Slider, TextInput, Tooltip, UnstyledButton } from '@mantine/core';
import { IconLock, IconLockOpen } from '@tabler/icons-react';
import { useEffect, useState } from 'react';
import type { PassageEdit } from '@cadence/core/programme/edits/programme/passageEdits.ts';
import type { Following, Passage } from '@cadence/core/programme/passage.ts';
import { sizeOf } from '@cadence/core/programme/passage.ts';
import type { Facts } from '@cadence/core/programme/programme.ts';
import type { TravelFigures } from '@cadence/core/scene/travelFigures.ts';
import { countFrames } from '@cadence/core/time/frameRate.ts';
import { ZERO } from '@cadence/core/time/ticks.ts';
import { parseTypedTime } from '@cadence/core/time/timecode.ts';
import { keepDraft } from '../desk/desk.ts';
import { formatSpeed } from './figures.ts';
import { travel } from './travel.ts';
import classes from './Equation.module.css';

interface Props {
  readonly facts: Facts;
  readonly passage: Passage;
  readonly figures: TravelFigures;
  /** As it is kept, whatever is tried out. */
  readonly kept: TravelFigures;
}

/** A slider goes over so many times the value at which it was taken, either way. */
const REACH = 2;

export function Equation({ facts, passage, figures, kept }: Props) {
  const { way } = figures;
  const { frames, speed } = figures.travel;
  const { frameRate } = facts;
  const fps = frameRate.num / frameRate.den;
  const size = sizeOf(passage, facts);
  const seconds = frames / fps;
  const framesFrom = (text: string): number | undefined => {
    const typed = parseTypedTime(text, frameRate, ZERO);
    const count = typed === undefined ? 0 : countFrames(typed, frameRate);
    return count >= 1 ? count : undefined;
  };
  return (
    <>
      <Quantity
        key={`size ${passage.id}`}
        of="size"
        name="Text size"
        follows={passage.journey.follows}
        value={size}
        shown={String(Math.round(size * 100) / 100)}
        unit={`px, ${Math.round(way.length).toLocaleString('en-GB')} px ${passage.kind === 'roll' ? 'tall' : 'long'}`}
        help="Write a size in pixels, such as 42."
        read={(text) => {
          const value = Number(text.replace(',', '.'));
          return value >= 4 && value <= 1000 ? value : undefined;
        }}
        step={1}
        edit={travel.setSize}
      />
      <Quantity
        key={`time ${passage.id}`}
        of="time"
        name="Duration"
        follows={passage.journey.follows}
        value={frames}
        shown={(Math.round(seconds * 100) / 100).toFixed(seconds < 100 ? 2 : 1)}
        unit={`s, ${frames.toLocaleString('en-GB')} frames`}
        help="Write seconds, frames or a timecode: 30, 750f or 00:00:30:00."
        read={framesFrom}
        step={1}
        edit={(count) => travel.place({ frames: Math.round(count) })}
      />
      <Quantity
        key={`speed ${passage.id}`}
        of="speed"
        name="Speed"
        follows={passage.journey.follows}
        value={speed}
        shown={formatSpeed(speed)}
        unit="px a frame"
        help="Write pixels a frame, such as 7.5."
        read={(text) => {
          const value = Number(text.replace(',', '.'));
          return value > 0 && value <= 10_000 ? value : undefined;
        }}
        step={0.05}
        edit={travel.setSpeed}
      />
      <Speeds figures={kept} fps={fps} />
    </>
  );
}

interface QuantityProps {
  readonly of: Following;
  readonly name: string;
  readonly follows: Following;
  readonly value: number;
  readonly shown: string;
  readonly unit: string;
  readonly help: string;
  readonly step: number;
  /** What was typed as a value; undefined where it makes no sense. */
  readonly read: (text: string) => number | undefined;
  readonly edit: (value: number) => PassageEdit;
}

/** One of size, time and speed: typed, drawn along, and held or following. */
function Quantity(props: QuantityProps) {
  const { of, name, follows, value, shown, unit, help, step, read, edit } = props;
  const [text, setText] = useState(shown);
  const [problem, setProblem] = useState<string | null>(null);
  /** The value with which the slider was taken, while it is. */
  const [taken, setTaken] = useState<number | null>(null);
  useEffect(() => {
    setText(shown);
    setProblem(null);
  }, [shown]);
  const following = follows === of;
  const keep = (): void => {
    if (text === shown) return;
    const typed = read(text);
    if (typed === undefined) setProblem(help);
    else travel.change(edit(typed));
  };
  const middle = taken ?? value;
  const least = Math.max(step, Math.floor(middle / REACH / step) * step);
  return (
    <section
      className={`${classes.quantity} ${following ? classes.follows : ''}`}
      aria-label={name}
    >
      <span className={classes.name}>{following ? `${name} follows` : name}</span>
      <span className={classes.value}>
        <TextInput
          className={classes.figure}
          aria-label={`${name}, ${unit}`}
          value={text}
          error={problem}
          onChange={(event) => setText(event.currentTarget.value)}
          onFocus={(event) => event.currentTarget.select()}
          onBlur={keep}
          onKeyDown={(event) => {
            if (event.key === 'Enter') keep();
            if (event.key !== 'Escape') return;
            setText(shown);
            setProblem(null);
            event.currentTarget.blur();
          }}
        />
        <span className={classes.unit}>{unit}</span>
      </span>
      <Tooltip
        label={
          following
            ? `The ${of} is worked out from the other two`
            : `Work out the ${of} from the other two (Alt E: next)`
        }
      >
        <UnstyledButton
          className={classes.hold}
          aria-pressed={!following}
          aria-label={
            following ? `${name} follows` : `${name} is held. Press to let it follow the other two.`
          }
          onClick={() => !following && travel.letFollow(of)}
        >
          {following ? (
            <IconLockOpen size={18} stroke={1.7} />
          ) : (
            <IconLock size={18} stroke={1.7} />
          )}
          {following ? 'follows' : 'held'}
        </UnstyledButton>
      </Tooltip>
      <Slider
        className={classes.slider}
        size={3}
        thumbSize={14}
        label={null}
        color={following ? 'var(--weld)' : 'indigo'}
        thumbLabel={`${name}, ${unit}`}
        min={least}
        max={middle * REACH}
        step={step}
        value={value}
        onChange={(next) => {
          setTaken((before) => before ?? value);
          travel.tryOut(edit(next));
        }}
        onChangeEnd={() => {
          setTaken(null);
          keepDraft();
        }}
      />
    </section>
  );
}

/** Speeds that move every frame alike, each with the time that it takes. */
function Speeds({ figures, fps }: { figures: TravelFigures; fps: number }) {
  const { options, judder } = figures;
  const { speed: now, frames } = figures.travel;
  // The nearest three, the one that it has among them.
  const near = [...options]
    .sort((a, b) => Math.abs(a.speed - now) - Math.abs(b.speed - now))
    .slice(0, 3)
    .sort((a, b) => a.speed - b.speed);
  return (
    <section aria-label="Even speeds" className={classes.speeds}>
      <p className="quiet">
        {judder === 0
          ? 'No judder. Even speeds:'
          : `Judder: ${Math.max(1, Math.round(judder * 100))} %. Even speeds:`}
      </p>
      <div>
        {near.map((option) => {
          const by = (option.frames - frames) / fps;
          return (
            <UnstyledButton
              key={option.speed}
              className={classes.speed}
              aria-pressed={Math.abs(option.speed - now) < 1e-9}
              onClick={() => travel.change(travel.setSpeed(option.speed))}
              onPointerEnter={() => travel.tryOut(travel.setSpeed(option.speed))}
              onPointerLeave={() => travel.tryOut(null)}
            >
              <b>{formatSpeed(option.speed)} px</b>
              <span>
                {(option.frames / fps).toFixed(1)} s
                {Math.abs(by) >= 0.05 && `, ${by > 0 ? '+' : '−'}${Math.abs(by).toFixed(1)} s`}
              </span>
            </UnstyledButton>
          );
        })}
      </div>
    </section>
  );
}
