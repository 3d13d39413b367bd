/** A line of Words: quiet in the list, or the one that is typed on. */
import { memo, useEffect, useRef, useState } from 'react';
import type { Edge } from '@cadence/core/programme/edits/cues/trimCue.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import type { ReadingProfile } from '@cadence/core/pace/profile.ts';
import { readingOf } from '@cadence/core/pace/reading.ts';
import { linesOf, plainText } from '@cadence/core/text/lines.ts';
import type { FrameRate } from '@cadence/core/time/frameRate.ts';
import { lengthOf } from '@cadence/core/time/range.ts';
import { add, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { redo, undo } from '../desk/desk.ts';
import { beforeLeaving } from '../sync/leaving.ts';
import { store } from '../desk/store.ts';
import { player } from '../playback/player.ts';
import type { WordsLine } from './lines.ts';
import { SmallGauge } from '../kit/ReadingGauge.tsx';
import classes from './WordsPlace.module.css';

interface QuietProps {
  readonly line: WordsLine;
  readonly profile: ReadingProfile;
  readonly frameRate: FrameRate;
  readonly start: Ticks;
  readonly go: (line: WordsLine) => void;
}

const Figured = ({ line, profile }: Pick<QuietProps, 'line' | 'profile'>) => (
  <>
    <span className={classes.length}>{toSeconds(lengthOf(line)).toFixed(1)} s</span>
    <SmallGauge reading={readingOf({ ...line, text: line.cue?.text ?? [] })} profile={profile} />
  </>
);

export const QuietLine = memo(function QuietLine({
  line,
  profile,
  frameRate,
  start,
  go,
}: QuietProps) {
  const text = line.cue ? plainText(line.cue.text) : '';
  return (
    <button type="button" className={classes.quiet} onClick={() => go(line)}>
      <span className={classes.time}>{formatTimecode(add(line.start, start), frameRate)}</span>
      <span data-text className={text.trim() ? classes.words : classes.silent}>
        {text.trim() ? text : 'no text yet'}
      </span>
      <Figured line={line} profile={profile} />
    </button>
  );
});

/** What the keys on a line come to. */
export interface LineCommands {
  keep(line: WordsLine, text: string): Id | undefined;
  /** Has what is typed outlive the page. */
  layBy(line: WordsLine, text: string): void;
  next(line: WordsLine, text: string): void;
  step(line: WordsLine, text: string, by: 1 | -1): void;
  split(line: WordsLine, text: string, caret: number): void;
  joinAbove(line: WordsLine, text: string): boolean;
  trim(line: WordsLine, text: string, edge: Edge): void;
}

/** The pause after which typing rests and is kept, in milliseconds. */
const REST = 600;

interface ActiveProps extends Omit<QuietProps, 'go'> {
  readonly commands: LineCommands;
  readonly typing: (text: string) => void;
  readonly area: React.RefObject<HTMLTextAreaElement | null>;
}

/** The line that is typed on. What is typed is kept when it is left, and after a rest. */
export function ActiveLine({
  line,
  profile,
  frameRate,
  start,
  commands,
  typing,
  area,
}: ActiveProps) {
  const kept = line.cue ? plainText(line.cue.text) : '';
  const [text, setWritten] = useState(kept);
  useEffect(() => setWritten(kept), [kept]);
  useEffect(() => {
    const element = area.current;
    element?.focus({ preventScroll: true });
    element?.setSelectionRange(element.value.length, element.value.length);
  }, [area]);
  const latest = useRef({ line, text });
  latest.current = { line, text };
  useEffect(
    () => () => {
      // Left in another way than by a key: what was typed on a cue is kept all the same.
      if (store.getState().open) commands.keep(latest.current.line, latest.current.text);
    },
    [commands],
  );
  // What is being typed goes with the steps that wait.
  useEffect(
    () => beforeLeaving(() => commands.keep(latest.current.line, latest.current.text)),
    [commands],
  );
  useEffect(() => {
    if (text === kept || !line.cue) return;
    const rest = setTimeout(() => commands.keep(line, text), REST);
    return () => clearTimeout(rest);
  }, [text, kept, line, commands]);

  const key = (event: React.KeyboardEvent<HTMLTextAreaElement>) => {
    const { selectionStart: caret, selectionEnd } = event.currentTarget;
    const done = () => {
      event.preventDefault();
      event.stopPropagation();
    };
    const alone = !event.shiftKey && !event.ctrlKey && !event.altKey && !event.metaKey;
    if (event.nativeEvent.isComposing) return;
    if (event.key === 'Enter' && alone) {
      done();
      commands.next(line, text);
    } else if (event.key === 'Tab' && alone) {
      done();
      player.play(line);
    } else if (event.key === '\\' && alone) {
      done();
      commands.split(line, text, caret);
    } else if (event.key === 'Backspace' && alone && caret === 0 && selectionEnd === 0) {
      if (commands.joinAbove(line, text)) done();
    } else if (event.altKey && (event.key === '[' || event.key === ']')) {
      done();
      commands.trim(line, text, event.key === '[' ? 'start' : 'end');
    } else if (event.ctrlKey && event.key === ' ') {
      done();
      player.toggle();
    } else if (event.key === 'ArrowUp' && alone && !text.slice(0, caret).includes('\n')) {
      done();
      commands.step(line, text, -1);
    } else if (event.key === 'ArrowDown' && alone && !text.slice(caret).includes('\n')) {
      done();
      commands.step(line, text, 1);
    } else if (event.key === 'Escape') {
      done();
      event.currentTarget.blur();
    } else if (
      (event.ctrlKey || event.metaKey) &&
      event.key.toLowerCase() === 'z' &&
      text === kept
    ) {
      // Nothing of its own to undo: the programme's undo answers.
      done();
      if (event.shiftKey) redo();
      else undo();
    }
  };
  const typed = { ...line, text: linesOf(text) };
  return (
    <div className={classes.active}>
      <span className={classes.time}>{formatTimecode(add(line.start, start), frameRate)}</span>
      <textarea
        ref={area}
        aria-label={`Text at ${formatTimecode(add(line.start, start), frameRate)}`}
        rows={text.split('\n').length}
        value={text}
        spellCheck
        lang="en-GB"
        placeholder="no text yet"
        onChange={(event) => {
          setWritten(event.currentTarget.value);
          typing(event.currentTarget.value);
          commands.layBy(line, event.currentTarget.value);
        }}
        onKeyDown={key}
        onBlur={() => commands.keep(line, text)}
      />
      <span className={classes.length}>{toSeconds(lengthOf(line)).toFixed(1)} s</span>
      <SmallGauge reading={readingOf(typed)} profile={profile} />
    </div>
  );
}
