/** A field into which a time can be typed: a timecode, seconds or frames. */
import { TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { add, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode, parseTypedTime } from '@cadence/core/time/timecode.ts';
import { make } from '../desk/desk.ts';
import { useShown } from '../desk/store.ts';
import classes from './TimeField.module.css';

interface TimeFieldProps {
  readonly label: string;
  /** Whether the label is only said, as in a table. */
  readonly bare?: boolean;
  /** Whether it may lie after the end of the programme. */
  readonly beyond?: boolean;
  readonly time: Ticks;
  readonly move: (to: Ticks) => Edit;
}

export function TimeField({ label, bare = false, beyond = false, time, move }: TimeFieldProps) {
  const { frameRate, startTimecode, length } = useShown((programme) => programme.facts);
  const shown = formatTimecode(add(time, startTimecode), frameRate);
  const [text, setTyped] = useState(shown);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    setTyped(shown);
    setProblem(null);
  }, [shown]);
  const keep = () => {
    if (text === shown) {
      setProblem(null);
      return;
    }
    const typed = parseTypedTime(text, frameRate, startTimecode);
    if (typed === undefined) setProblem(`Write a time as ${shown}, 465f or 18.6s.`);
    else if (typed < 0 || (typed > length && !beyond))
      setProblem('This time is outside the programme.');
    else if (!make(move(typed))) setTyped(shown);
  };
  return (
    <TextInput
      {...(bare ? { 'aria-label': label } : { label })}
      size="xs"
      value={text}
      error={problem}
      classNames={{ input: classes.time ?? '', label: classes.label ?? '' }}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') keep();
        if (event.key !== 'Escape') return;
        setTyped(shown);
        setProblem(null);
        event.currentTarget.blur();
      }}
    />
  );
}
