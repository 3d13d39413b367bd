import type { ReactNode } from 'react';
import { readingOf } from '@cadence/core/pace/reading.ts';
import { linesOf } from '@cadence/core/text/lines.ts';
import { add, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { useShown } from '../desk/store.ts';
import type { WordsLine } from './lines.ts';
import classes from './WordsPlace.module.css';

/** What is measured of the line that is typed on. */
interface Props {
  readonly line: WordsLine | null;
  readonly typed: string | null;
  readonly children: ReactNode;
}

export function LineFigures({ line, typed, children }: Props) {
  const { profile, frameRate, startTimecode } = useShown((programme) => programme.facts);
  if (!line)
    return (
      <section className="card" style={{ padding: 14 }}>
        <span className="quiet">
          Press Enter to begin, or click a line: it plays. Type what you hear. Enter plays the next
          line.
        </span>
      </section>
    );
  const text = typed === null ? (line.cue?.text ?? []) : linesOf(typed);
  const reading = readingOf({ ...line, text });
  const code = (time: Ticks) => formatTimecode(add(time, startTimecode), frameRate);
  return (
    <section className={`card ${classes.figures}`}>
      <h3>
        {line.cue ? 'Cue' : 'Piece'}{' '}
        <span className="quiet">
          {code(line.start)} to {code(line.end)}
        </span>
      </h3>
      <dl className="facts">
        <dt>On screen</dt>
        <dd>{reading.onScreen.toFixed(2)} s</dd>
        <dt>Characters a second</dt>
        <dd>
          {reading.charactersASecond.toFixed(1)}, limit {profile.charactersASecond}
        </dd>
        <dt>Longest line</dt>
        <dd>
          {reading.longestLine} of {profile.longestLine} characters
        </dd>
        <dt>Words a minute</dt>
        <dd>{Math.round(reading.wordsAMinute)}</dd>
      </dl>
      {children}
    </section>
  );
}
