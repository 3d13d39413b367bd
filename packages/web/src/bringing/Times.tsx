/** Times of a file against those of the programme. */
import { Button, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Retiming } from '@cadence/core/programme/woven/retimed.ts';
import { FRAME_RATES, frameBefore, nameRate } from '@cadence/core/time/frameRate.ts';
import { add, fromSeconds, ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode, parseTypedTime } from '@cadence/core/time/timecode.ts';
import { openNow } from '../desk/store.ts';
import { player } from '../playback/player.ts';
import { usePlayerState } from '../playback/usePlayer.ts';
import classes from './BringIn.module.css';

interface Typed {
  readonly start: string;
  readonly shift: number;
  readonly speed: string;
  readonly stretch: readonly [string, string, string, string];
}

const AS_IT_IS = 'unchanged';
/** So much is heard from a known time on. */
const HEARD = fromSeconds(2);

/** The fields for moving times. */
export function Times({ change }: { change: (retiming: Retiming) => void }) {
  const { facts } = openNow().programme;
  const { playing } = usePlayerState();
  const [typed, setTyped] = useState<Typed>({
    start: '',
    shift: 0,
    speed: AS_IT_IS,
    stretch: ['', '', '', ''],
  });
  /** A time of the file, which knows nothing of the programme's start. */
  const inFile = (text: string) => parseTypedTime(text, facts.frameRate, ZERO);
  const inProgramme = (text: string) => parseTypedTime(text, facts.frameRate, facts.startTimecode);
  const wrong = (text: string, read: (text: string) => Ticks | undefined) =>
    text !== '' && read(text) === undefined ? 'Write 10:00:00:00, 465f or 18.6s.' : null;
  const set = (part: Partial<Typed>) => {
    const next = { ...typed, ...part };
    setTyped(next);
    const start = next.start === '' ? undefined : inFile(next.start);
    const [a, to, b, till] = next.stretch;
    const pins = [inFile(a), inProgramme(to), inFile(b), inProgramme(till)];
    const made = FRAME_RATES.find((rate) => nameRate(rate) === next.speed);
    const [fileA, toA, fileB, toB] = pins;
    const all = next.stretch.every((text) => text !== '');
    change({
      ...(start !== undefined && { start }),
      ...(next.shift !== 0 && { shift: fromSeconds(next.shift) }),
      ...(made && {
        speed: { from: made.num / made.den, to: facts.frameRate.num / facts.frameRate.den },
      }),
      ...(all &&
        fileA !== undefined &&
        toA !== undefined &&
        fileB !== undefined &&
        toB !== undefined && {
          stretch: [
            { file: fileA, programme: toA },
            { file: fileB, programme: toB },
          ] as const,
        }),
    });
  };
  const pin = (at: 0 | 1 | 2 | 3, label: string) => (
    <TextInput
      size="xs"
      w={150}
      label={label}
      placeholder={
        at % 2 === 0 ? '00:00:01:00' : formatTimecode(facts.startTimecode, facts.frameRate)
      }
      value={typed.stretch[at]}
      error={wrong(typed.stretch[at], at % 2 === 0 ? inFile : inProgramme)}
      onChange={(event) => {
        const stretch = [...typed.stretch] as [string, string, string, string];
        stretch[at] = event.currentTarget.value;
        set({ stretch });
      }}
    />
  );
  /** A time of the programme, with ways to take it from the playhead and to hear it. */
  const known = (at: 1 | 3, label: string) => {
    const time = inProgramme(typed.stretch[at]);
    return (
      <div>
        {pin(at, label)}
        <div className={classes.known}>
          <Button
            size="compact-xs"
            onClick={() => {
              const stretch = [...typed.stretch] as [string, string, string, string];
              stretch[at] = formatTimecode(
                add(frameBefore(player.time, facts.frameRate), facts.startTimecode),
                facts.frameRate,
              );
              set({ stretch });
            }}
          >
            Take the playhead
          </Button>
          <Button
            size="compact-xs"
            disabled={time === undefined}
            onClick={() =>
              time !== undefined && player.play({ start: time, end: add(time, HEARD) })
            }
          >
            Hear it
          </Button>
        </div>
      </div>
    );
  };
  return (
    <details className={classes.times}>
      <summary>Adjust the times</summary>
      <div className={classes.row}>
        <TextInput
          size="xs"
          w={150}
          label="Start timecode of the file"
          placeholder="00:00:00:00"
          value={typed.start}
          error={wrong(typed.start, inFile)}
          onChange={(event) => set({ start: event.currentTarget.value })}
        />
        <NumberInput
          size="xs"
          w={120}
          label="Offset, s"
          step={0.1}
          decimalScale={3}
          min={-86_400}
          max={86_400}
          value={typed.shift}
          onChange={(value) => typeof value === 'number' && set({ shift: value })}
        />
        <NativeSelect
          size="xs"
          w={200}
          label="Frame rate of the file"
          data={[AS_IT_IS, ...FRAME_RATES.map(nameRate)]}
          value={typed.speed}
          onChange={(event) => set({ speed: event.currentTarget.value })}
        />
      </div>
      <p className="quiet">
        Or stretch the file between two known times.{' '}
        <Button
          size="compact-xs"
          onClick={() => (player.state().playing ? player.pause() : player.play())}
        >
          {playing ? 'Pause' : 'Play from the playhead'}
        </Button>
      </p>
      <div className={classes.row}>
        {pin(0, 'First time in the file')}
        {known(1, 'First time here')}
        {pin(2, 'Second time in the file')}
        {known(3, 'Second time here')}
      </div>
    </details>
  );
}
