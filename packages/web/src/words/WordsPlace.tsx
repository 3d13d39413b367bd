/** Words: a line for each piece or cue; it plays, you type, Enter goes on. */
import { Button } from '@mantine/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { lazy, memo, Suspense, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { joinCues } from '@cadence/core/programme/edits/joinCues.ts';
import { splitCue } from '@cadence/core/programme/edits/splitCue.ts';
import { trimCue, type Edge } from '@cadence/core/programme/edits/trimCue.ts';
import { piecesInOrder } from '@cadence/core/programme/order.ts';
import type { Cue, Id } from '@cadence/core/programme/programme.ts';
import { readingOf } from '@cadence/core/pace/reading.ts';
import type { ReadingProfile } from '@cadence/core/pace/profile.ts';
import { linesOf, plainText } from '@cadence/core/text/lines.ts';
import type { FrameRate } from '@cadence/core/time/frameRate.ts';
import { lengthOf } from '@cadence/core/time/range.ts';
import { add, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { make, newId, redo, undo } from '../app/edit.ts';
import { plural } from '../app/format.ts';
import { say } from '../app/say.ts';
import {
  currentCues,
  currentStrand,
  openNow,
  store,
  useApp,
  useAppDispatch,
  useShown,
} from '../app/store.ts';
import { selected } from '../app/view.ts';
import { PictureView } from '../picture/PictureView.tsx';
import { player } from '../playback/player.ts';
import { keepLine, linesOfWords, type WordsLine } from './lines.ts';
import { PieceStrip } from './PieceStrip.tsx';
import { SmallGauge } from './ReadingGauge.tsx';
import classes from './WordsPlace.module.css';

const SpeedChart = lazy(() => import('./SpeedChart.tsx'));

export default function WordsPlace() {
  const programme = useShown((shown) => shown);
  const { facts } = programme;
  const cues = currentCues(programme);
  const pieces = piecesInOrder(programme, facts.sound);
  const lines = useMemo(() => linesOfWords(cues, pieces), [cues, pieces]);
  const selection = useApp((state) => state.view.selection);
  const dispatch = useAppDispatch();
  const [activeId, setActiveId] = useState<Id | null>(() => selection.at(-1) ?? null);
  const active = lines.find((line) => line.id === activeId) ?? null;
  const area = useRef<HTMLTextAreaElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: (at) => (lines[at]?.cue && lines[at].cue.text.length > 1 ? 56 : 40),
    getItemKey: (at) => lines[at]?.id ?? at,
    overscan: 6,
  });
  const empty = lines.filter((line) => !line.cue || plainText(line.cue.text).trim() === '').length;

  const go = useCallback(
    (line: WordsLine | undefined, play = true) => {
      if (!line) return;
      setActiveId(line.id);
      dispatch(selected(line.cue ? [line.cue.id] : []));
      if (play) player.play(line);
      else player.seek(line.start);
    },
    [dispatch],
  );

  useEffect(() => {
    const near = lines.findIndex((line) => line.end > player.time);
    if (near > 0) rows.scrollToIndex(near, { align: 'center' });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, on arriving in Words
  }, []);

  // The line that is arrived at comes into sight.
  const place = active ? lines.indexOf(active) : -1;
  useEffect(() => {
    if (place >= 0) rows.scrollToIndex(place, { align: 'auto' });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only when the line changes, not with the list
  }, [activeId]);

  const commands = useMemo(() => {
    const linesNow = () => {
      const { programme: now } = openNow();
      return linesOfWords(currentCues(now), piecesInOrder(now, now.facts.sound));
    };
    /** Keeps what was typed and gives the cue of the line, which may be new. */
    const keep = (line: WordsLine, text: string): Id | undefined => {
      // A piece may have become a cue since: then what was typed has been kept already.
      const still = linesNow().find((each) => each.id === line.id);
      if (!still) return undefined;
      const { programme: now } = openNow();
      const edit = keepLine(now, currentStrand(now), still, text, newId);
      const made = edit.changes.find((change) => change.was === null);
      if (edit.changes.length > 0) make(edit);
      return still.cue?.id ?? made?.id;
    };
    const besides = (line: WordsLine, by: 1 | -1): WordsLine | undefined => {
      const all = linesNow();
      // A piece that has just become a cue has another id, but the same place in time.
      const at = all.findIndex(
        (each) => each.id === line.id || (each.start < line.end && each.end > line.start),
      );
      return all[at + by];
    };
    return {
      keep,
      next: (line: WordsLine, text: string) => {
        keep(line, text);
        const next = besides(line, 1);
        if (next) go(next);
        else say.note('That was the last line.');
      },
      step: (line: WordsLine, text: string, by: 1 | -1) => {
        keep(line, text);
        go(besides(line, by));
      },
      split: (line: WordsLine, text: string, caret: number) => {
        const id = keep(line, text) ?? (line.cue ? line.cue.id : undefined);
        if (id === undefined) {
          say.note('Type something before you split the line.');
          return;
        }
        const { programme: now } = openNow();
        const inside = caret > 0 && caret < text.length;
        const edit = splitCue(now, id, player.time, newId, inside ? caret : undefined);
        const rest = edit.changes.find((change) => change.was === null)?.id;
        if (!make(edit) || rest === undefined) return;
        go(
          linesNow().find((each) => each.id === id),
          false,
        );
      },
      joinAbove: (line: WordsLine, text: string): boolean => {
        const above = besides(line, -1);
        const id = keep(line, text) ?? line.cue?.id;
        if (!above?.cue || id === undefined) return false;
        if (!make(joinCues(openNow().programme, [above.cue.id, id]))) return false;
        go(
          linesNow().find((each) => each.id === above.id),
          false,
        );
        return true;
      },
      trim: (line: WordsLine, text: string, edge: Edge) => {
        const id = keep(line, text) ?? line.cue?.id;
        if (id === undefined) say.note('Type something first; then its edges can be set.');
        else make(trimCue(openNow().programme, id, edge, player.time));
        if (id !== undefined) setActiveId(id);
      },
    };
  }, [go]);

  if (lines.length === 0) return <NothingToType sound={facts.sound !== null} />;
  return (
    <main className="place">
      <section className={`page ${classes.page}`} aria-label="Lines">
        <div className={`bar ${classes.bar}`}>
          <h2>Type as you listen</h2>
          <span className="quiet">
            {plural(lines.length, 'line')}, {empty === 0 ? 'all written' : `${empty} still empty`}
          </span>
          <span className="spring" />
          <Button
            variant={empty > 0 ? 'filled' : 'default'}
            disabled={empty === 0}
            onClick={() => go(nextEmpty(lines, place))}
          >
            To the next empty line
          </Button>
        </div>
        <div ref={scroller} className={classes.scroller}>
          <ol className={classes.lines} style={{ height: rows.getTotalSize() }}>
            {rows.getVirtualItems().map((item) => {
              const line = lines[item.index];
              if (!line) return null;
              const on = line.id === active?.id;
              return (
                <li
                  key={item.key}
                  ref={rows.measureElement}
                  data-index={item.index}
                  className={`${classes.line} ${on ? classes.on : ''}`}
                  style={{ transform: `translateY(${item.start}px)` }}
                  aria-current={on || undefined}
                >
                  {on ? (
                    <ActiveLine
                      key={line.id}
                      line={line}
                      profile={facts.profile}
                      frameRate={facts.frameRate}
                      start={facts.startTimecode}
                      commands={commands}
                      area={area}
                    />
                  ) : (
                    <QuietLine
                      line={line}
                      profile={facts.profile}
                      frameRate={facts.frameRate}
                      start={facts.startTimecode}
                      go={go}
                    />
                  )}
                </li>
              );
            })}
          </ol>
        </div>
        <PieceStrip line={active} />
      </section>
      <aside className={`side ${classes.side}`}>
        <PictureView />
        <Figures line={active} />
        <section className={`card ${classes.across}`}>
          <h3>Across the programme</h3>
          <Suspense fallback={<div className={classes.chart} />}>
            <SpeedChart
              pick={(cue) => {
                go(lines.find((line) => line.cue?.id === cue));
              }}
            />
          </Suspense>
        </section>
      </aside>
    </main>
  );
}

/** The first empty line after `place`, going round at the end. */
function nextEmpty(lines: readonly WordsLine[], place: number): WordsLine | undefined {
  const order = [...lines.slice(place + 1), ...lines.slice(0, place + 1)];
  return order.find((line) => !line.cue || plainText(line.cue.text).trim() === '');
}

const NothingToType = ({ sound }: { sound: boolean }) => (
  <main className="place">
    <div className="empty">
      <h2>No lines yet</h2>
      <p>
        {sound
          ? 'No speech has been found in the sound. In Material, find it with other settings; or draw cues by hand in Timing.'
          : 'Bring in a film or a sound first. Its speech is found, and a line appears here for every piece.'}
      </p>
    </div>
  </main>
);

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

const QuietLine = memo(function QuietLine({ line, profile, frameRate, start, go }: QuietProps) {
  const text = line.cue ? plainText(line.cue.text) : '';
  return (
    <button type="button" className={classes.quiet} onClick={() => go(line)}>
      <span className={classes.time}>{formatTimecode(add(line.start, start), frameRate)}</span>
      <span className={text.trim() ? classes.words : classes.silent}>
        {text.trim() ? text : 'silent so far'}
      </span>
      <Figured line={line} profile={profile} />
    </button>
  );
});

interface Commands {
  keep(line: WordsLine, text: string): Id | undefined;
  next(line: WordsLine, text: string): void;
  step(line: WordsLine, text: string, by: 1 | -1): void;
  split(line: WordsLine, text: string, caret: number): void;
  joinAbove(line: WordsLine, text: string): boolean;
  trim(line: WordsLine, text: string, edge: Edge): void;
}

/** Typing rests after so many milliseconds; then it is kept. */
const REST = 600;

interface ActiveProps extends Omit<QuietProps, 'go'> {
  readonly commands: Commands;
  readonly area: React.RefObject<HTMLTextAreaElement | null>;
}

/** The line that is typed on. What is typed is kept when it is left, and after a rest. */
function ActiveLine({ line, profile, frameRate, start, commands, area }: ActiveProps) {
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
  useEffect(() => {
    // The page is closed or left: what is being typed goes with the steps that wait.
    const leave = () => commands.keep(latest.current.line, latest.current.text);
    window.addEventListener('pagehide', leave);
    return () => window.removeEventListener('pagehide', leave);
  }, [commands]);
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
        placeholder="silent so far"
        onChange={(event) => setWritten(event.currentTarget.value)}
        onKeyDown={key}
        onBlur={() => commands.keep(line, text)}
      />
      <span className={classes.length}>{toSeconds(lengthOf(line)).toFixed(1)} s</span>
      <SmallGauge reading={readingOf(typed)} profile={profile} />
    </div>
  );
}

/** What is measured of the line that is typed on. */
function Figures({ line }: { line: WordsLine | null }) {
  const { profile, frameRate, startTimecode } = useShown((programme) => programme.facts);
  if (!line)
    return (
      <section className="card" style={{ padding: 14 }}>
        <span className="quiet">
          Click a line, and its piece plays. Type what you hear; Enter goes on.
        </span>
      </section>
    );
  const cue: Pick<Cue, 'text' | 'start' | 'end'> = { ...line, text: line.cue?.text ?? [] };
  const reading = readingOf(cue);
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
    </section>
  );
}
