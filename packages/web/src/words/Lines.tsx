/** The lines of Words: one for each piece or cue; it plays, you type, Enter goes on. */
import { useVirtualizer } from '@tanstack/react-virtual';
import {
  useCallback,
  useEffect,
  useEffectEvent,
  useImperativeHandle,
  useMemo,
  useRef,
  useState,
  type Ref,
} from 'react';
import { joinCues } from '@cadence/core/programme/edits/cues/joinCues.ts';
import { splitCue } from '@cadence/core/programme/edits/cues/splitCue.ts';
import { trimCue, type Edge } from '@cadence/core/programme/edits/cues/trimCue.ts';
import type { Id } from '@cadence/core/programme/programme.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { make, makeTyped, newId, typing } from '../desk/desk.ts';
import { say } from '../desk/say.ts';
import {
  currentCues,
  currentPieces,
  currentStrand,
  openNow,
  useApp,
  useAppDispatch,
  useShown,
} from '../desk/store.ts';
import { selected } from '../desk/view.ts';
import { isTaken, nameOfStroke } from '../kit/keyStrokes.ts';
import { player } from '../playback/player.ts';
import { useTimeFollower } from '../playback/usePlayer.ts';
import { ActiveLine, QuietLine, type LineCommands } from './LineView.tsx';
import { keepLine, linesOfWords, type WordsLine } from './lines.ts';
import { light, lightIn, saidNow } from './saidLight.ts';
import { PieceStrip } from './PieceStrip.tsx';
import classes from './WordsPlace.module.css';

export interface LinesHandle {
  /** Goes to the next empty line and plays it. */
  toNextEmpty(): void;
}

interface LinesProps {
  readonly ref: Ref<LinesHandle>;
  /** Told of the line that is typed on, and of what is typed before it is kept. */
  readonly working: (part: { line?: WordsLine | null; typed?: string | null }) => void;
}

export function Lines({ ref, working }: LinesProps) {
  const programme = useShown((shown) => shown);
  const { facts } = programme;
  const cues = currentCues(programme);
  const pieces = currentPieces(programme);
  const lines = useMemo(() => linesOfWords(cues, pieces), [cues, pieces]);
  const selection = useApp((state) => state.view.selection);
  const dispatch = useAppDispatch();
  const [activeId, setActiveId] = useState<Id | null>(() => selection.at(-1) ?? null);
  const active = lines.find((line) => line.id === activeId) ?? null;
  const setTyped = useCallback((typed: string | null) => working({ typed }), [working]);
  const area = useRef<HTMLTextAreaElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: (at) => (lines[at]?.cue && lines[at].cue.text.length > 1 ? 56 : 40),
    getItemKey: (at) => lines[at]?.id ?? at,
    overscan: 6,
    // A line or two of what comes next stays in sight under the one that is typed on.
    scrollPaddingStart: 50,
    scrollPaddingEnd: 120,
  });
  const go = useCallback(
    (line: WordsLine | undefined, play = true) => {
      if (!line) return;
      setActiveId(line.id);
      setTyped(null);
      dispatch(selected(line.cue ? [line.cue.id] : []));
      if (play) player.play(line);
      else player.seek(line.start);
    },
    [dispatch, setTyped],
  );

  const place = active ? lines.indexOf(active) : -1;
  const showNear = useEffectEvent(() => {
    const near = lines.findIndex((line) => line.end > player.time);
    if (near > 0) rows.scrollToIndex(near, { align: 'center' });
  });
  const showActive = useEffectEvent(() => {
    if (place >= 0) rows.scrollToIndex(place, { align: 'auto' });
  });
  // On arriving in Words the line at the playhead comes into sight, and then each line arrived at.
  useEffect(() => showNear(), []);
  useEffect(() => showActive(), [activeId]);

  const commands = useMemo((): LineCommands => {
    const linesNow = () => {
      const { programme: now } = openNow();
      return linesOfWords(currentCues(now), currentPieces(now));
    };
    const editOf = (line: WordsLine, text: string) => {
      // A piece may have become a cue since: then what was typed has been kept already.
      const still = linesNow().find((each) => each.id === line.id);
      const { programme: now } = openNow();
      return still && { still, edit: keepLine(now, currentStrand(now), still, text, newId) };
    };
    /** Keeps what was typed and gives the cue of the line, which may be new. */
    const keep = (line: WordsLine, text: string): Id | undefined => {
      const { still, edit } = editOf(line, text) ?? {};
      if (!still || !edit) return undefined;
      const made = edit.changes.find((change) => change.was === null);
      if (edit.changes.length > 0) makeTyped(edit);
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
      layBy: (line: WordsLine, text: string) => {
        const { edit } = editOf(line, text) ?? {};
        if (edit) typing(edit);
      },
      next: (line: WordsLine, text: string) => {
        keep(line, text);
        const next = besides(line, 1);
        if (next) go(next);
        else say.note('That was the last line. Alt 3 goes to Timing, Alt 5 to Handover.');
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
        if (id === undefined) say.note('Type something first. Then set its edges.');
        else make(trimCue(openNow().programme, id, edge, player.time));
        if (id !== undefined) setActiveId(id);
      },
    };
  }, [go]);

  // Enter goes on also where nothing is typed on: to the next line, or to the first that is empty.
  const goOn = useEffectEvent((event: KeyboardEvent) => {
    if (nameOfStroke(event) !== 'Enter' || isTaken(event)) return;
    event.preventDefault();
    if (active) commands.next(active, active.cue ? plainText(active.cue.text) : '');
    else go(nextEmpty(lines, -1) ?? lines[0]);
  });
  useEffect(() => {
    // Before the keys of the programme, which would go to the next cue only.
    const key = (event: KeyboardEvent) => goOn(event);
    document.addEventListener('keydown', key, true);
    return () => document.removeEventListener('keydown', key, true);
  }, []);
  useEffect(() => working({ line: active }), [working, active]);
  useTimeFollower((time) => {
    const said = saidNow(time);
    const line = said && scroller.current?.querySelector(`li[data-cue="${said.cue}"]`);
    lightIn(line?.querySelector('[data-text]'), said);
  });
  useEffect(() => () => light(undefined), []);
  // What is selected elsewhere comes into sight here, and is typed on.
  const follow = useEffectEvent(() => {
    const id = selection.at(-1);
    if (id !== undefined && id !== activeId && lines.some((line) => line.cue?.id === id)) {
      setActiveId(id);
      setTyped(null);
    }
  });
  useEffect(() => follow(), [selection]);
  useImperativeHandle(ref, () => ({ toNextEmpty: () => go(nextEmpty(lines, place)) }), [
    go,
    lines,
    place,
  ]);

  return (
    <>
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
                data-cue={line.cue?.id}
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
                    typing={setTyped}
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
    </>
  );
}

/** The first empty line after `place`, going round at the end. */
function nextEmpty(lines: readonly WordsLine[], place: number): WordsLine | undefined {
  const order = [...lines.slice(place + 1), ...lines.slice(0, place + 1)];
  return order.find((line) => !line.cue || plainText(line.cue.text).trim() === '');
}
