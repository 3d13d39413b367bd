/** Play, speeds, and the large timecode. */
import { ActionIcon, SegmentedControl, Tooltip } from '@mantine/core';
import {
  IconBulb,
  IconPlayerPauseFilled,
  IconPlayerPlayFilled,
  IconPlayerSkipBackFilled,
  IconPlayerSkipForwardFilled,
  IconRepeat,
} from '@tabler/icons-react';
import { useEffect, useRef, type ReactNode } from 'react';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { add, type Ticks } from '@cadence/core/time/ticks.ts';
import { frameBefore } from '@cadence/core/time/frameRate.ts';
import { act } from '../desk/actions.ts';
import { useApp, useShown, useStrand } from '../desk/store.ts';
import { player } from '../playback/player.ts';
import { usePlayerState, useTimeFollower } from '../playback/usePlayer.ts';
import classes from './Transport.module.css';

const SPEEDS = [
  { value: '0.5', label: '½' },
  { value: '0.75', label: '¾' },
  { value: '1', label: '1' },
];

/** @param children  what stands beside the buttons in one place */
export function Transport({ children }: { children?: ReactNode }) {
  const { playing, speed, problem } = usePlayerState();
  const loop = useApp((state) => state.view.loop);
  const light = Boolean(useStrand().style.saidColour);
  return (
    <div className={classes.transport}>
      <Tooltip label="To the start of the cue, or the one before (Page Up)">
        <ActionIcon aria-label="To the start of the cue" onClick={act.toCueBefore}>
          <IconPlayerSkipBackFilled size={18} />
        </ActionIcon>
      </Tooltip>
      <button
        type="button"
        className={classes.play}
        onClick={act.togglePlay}
        aria-label={playing ? 'Stop' : 'Play'}
      >
        {playing ? <IconPlayerPauseFilled size={19} /> : <IconPlayerPlayFilled size={19} />}
      </button>
      <Tooltip label="To the next cue (Page Down)">
        <ActionIcon aria-label="To the next cue" onClick={act.toCueAfter}>
          <IconPlayerSkipForwardFilled size={18} />
        </ActionIcon>
      </Tooltip>
      <SegmentedControl
        aria-label="Speed"
        data={SPEEDS}
        value={String(speed)}
        onChange={(value) => act.setSpeed(Number(value))}
      />
      <Tooltip label="Loop the cue (L)">
        <ActionIcon
          aria-label="Loop"
          aria-pressed={loop}
          variant={loop ? 'default' : 'subtle'}
          onClick={act.toggleLoop}
        >
          <IconRepeat size={17} />
        </ActionIcon>
      </Tooltip>
      <Tooltip label="Highlight the spoken word of this strand (Shift L)">
        <ActionIcon
          aria-label="Highlight words"
          aria-pressed={light}
          variant={light ? 'default' : 'subtle'}
          onClick={act.toggleLight}
        >
          <IconBulb size={17} />
        </ActionIcon>
      </Tooltip>
      {children}
      <span className="spring" />
      <Timecode />
      {problem && (
        <p role="alert" className={classes.problem}>
          {problem}
        </p>
      )}
    </div>
  );
}

/** Written straight into the page: it changes with every frame. */
function Timecode() {
  const frameRate = useShown((programme) => programme.facts.frameRate);
  const start = useShown((programme) => programme.facts.startTimecode);
  const element = useRef<HTMLOutputElement>(null);
  const write = (time: Ticks) => {
    const text = formatTimecode(add(frameBefore(time, frameRate), start), frameRate);
    if (element.current && element.current.textContent !== text) element.current.textContent = text;
  };
  useTimeFollower(write);
  useEffect(() => write(player.time));
  return <output ref={element} aria-label="Timecode" className={classes.timecode} />;
}
