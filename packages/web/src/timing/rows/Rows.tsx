/** The page of rows: only those in sight are drawn, each on a canvas of its own. */
import { useElementSize } from '@mantine/hooks';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { instantsWithin, within } from '@cadence/core/time/range.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import {
  heardBeats,
  heardHits,
  heardPieces,
  heardSections,
  soundsHeard,
} from '@cadence/core/programme/heard.ts';
import { levelsOf } from '@cadence/core/programme/levels.ts';
import { slopesOf } from '@cadence/core/programme/edits/patterns/slopes.ts';
import { cuesInOrder, marksInOrder, strandsInOrder } from '@cadence/core/programme/order.ts';
import type { Id, Programme, Strand } from '@cadence/core/programme/programme.ts';
import { useDyes } from '../../kit/dyes.ts';
import { currentCues, useApp, useAppDispatch, useShown, useStrand } from '../../desk/store.ts';
import { looked, ROW_SPANS } from '../../desk/view.ts';
import { useHeardAll } from '../../listening/heard.ts';
import { drawRow } from './drawRow.ts';
import {
  countRows,
  instantAt,
  pointOf,
  rowShape,
  spanOf,
  type Page,
} from '@cadence/core/rows/page.ts';
import { InPlaceText } from './InPlaceText.tsx';
import { writeWith } from '../../desk/writing.ts';
import { Band, bringIntoSight, Playhead, SaidWord } from './overlays.tsx';
import type { RowContent, Wave } from './rowContent.ts';
import { thingsOf } from '@cadence/core/rows/things.ts';
import { usePointer } from './usePointer.ts';
import classes from './Rows.module.css';

export function Rows() {
  const programme = useShown((shown) => shown);
  const { facts } = programme;
  const secondsARow = useApp((state) => state.view.secondsARow);
  const selection = useApp((state) => state.view.selection);
  const dispatch = useAppDispatch();
  const scroller = useRef<HTMLDivElement>(null);
  const { ref, width } = useElementSize();
  const hand = useApp((state) => state.view.hand);
  const picked = useApp((state) => state.view.picked);
  const waves = useWaves(programme);
  const cues = currentCues(programme);
  const strand = useStrand();
  const only = useApp((state) => state.view.only);
  const { strands, cues: all } = programme;
  const lanes = useMemo(
    () => (only ? [strand] : strandsInOrder({ strands })),
    [only, strand, strands],
  );
  const [pieces, beats, hits, sections] = [
    heardPieces(programme),
    heardBeats(programme),
    heardHits(programme),
    heardSections(programme),
  ];
  const marks = marksInOrder(programme);
  const hasWords = useMemo(
    () =>
      lanes.some(({ id }) => cuesInOrder({ cues: all }, id).some(({ words }) => words.length > 0)),
    [all, lanes],
  );
  const levels = useLevels(lanes, all);
  const counts = lanes.map(({ id }) => levels.count.get(id) ?? 1).join(' ');
  const page = useMemo<Page>(() => {
    const leveled = counts.split(' ').map(Number);
    const withLevels = lanes.map((lane, at) => ({ ...lane, levels: leveled[at] ?? 1 }));
    return {
      span: spanOf(secondsARow),
      width: Math.max(1, Math.floor(width)),
      shape: rowShape(hasWords, withLevels, strand.id),
    };
  }, [secondsARow, width, hasWords, lanes, counts, strand.id]);
  const count = countRows(page, facts.length);
  const rows = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => page.shape.step,
    overscan: 2,
  });
  const [editing, setEditing] = useState<string | null>(null);
  const pointer = usePointer(page, scroller, setEditing);

  useEffect(() => rows.measure(), [rows, page.shape.step]);

  // The instant under the pointer, or the first in sight, keeps its place when rows change their span.
  const anchor = useRef<{ time: Ticks; y: number } | null>(null);
  const before = useRef(page);
  useLayoutEffect(() => {
    const element = scroller.current;
    if (!element || before.current.span === page.span) {
      before.current = page;
      return;
    }
    const held = anchor.current ?? {
      time: instantAt(before.current, {
        row: Math.floor(element.scrollTop / before.current.shape.step),
        x: 0,
      }),
      y: 0,
    };
    anchor.current = null;
    before.current = page;
    element.scrollTop = pointOf(page, held.time).row * page.shape.step - held.y;
  }, [page]);

  useEffect(() => {
    const element = scroller.current;
    if (!element) return;
    let turned = 0;
    const wheel = (event: WheelEvent) => {
      if (!event.ctrlKey) return;
      event.preventDefault();
      turned += event.deltaY;
      if (Math.abs(turned) < 40) return;
      const now = ROW_SPANS.findIndex((span) => span === secondsARow);
      const next = ROW_SPANS[now + Math.sign(turned)];
      turned = 0;
      if (next === undefined) return;
      const { row, x, top } = pointer.pointUnder(event);
      anchor.current = { time: instantAt(page, { row, x }), y: top };
      dispatch(looked({ secondsARow: next }));
    };
    // Not passive, since the browser would otherwise enlarge the whole page.
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, [page, secondsARow, dispatch, pointer]);

  const chosen = selection.at(-1);
  const thing = picked.at(-1);
  const start =
    thing !== undefined && hand !== 'cues'
      ? thingsOf(programme, hand).find(({ id }) => id === thing)?.start
      : programme.cues[chosen ?? '']?.start;
  useShowSelected(scroller, page, thing ?? chosen, start);

  useEffect(() => writeWith(setEditing), []);
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement &&
        event.target.closest('input, textarea, [role=dialog]');
      if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key.toLowerCase() !== 'e' && event.key !== 'F2') return;
      const id = selection.at(-1);
      if (id === undefined) return;
      event.preventDefault();
      setEditing(id);
    };
    document.addEventListener('keydown', key);
    return () => document.removeEventListener('keydown', key);
  }, [selection]);

  return (
    <div ref={scroller} className={classes.scroller} {...pointer.handlers}>
      <div
        ref={ref}
        className={classes.rows}
        style={{ height: rows.getTotalSize() }}
        data-keys
        tabIndex={0}
        role="application"
        aria-label="Rows of sound and cues. Up and Down choose a cue, Enter plays the next one, question mark lists the keys."
      >
        {rows.getVirtualItems().map((item) => {
          const range = {
            start: (item.index * page.span) as Ticks,
            end: ((item.index + 1) * page.span) as Ticks,
          };
          const inRow = within(cues, range);
          const others = lanes.flatMap(({ id }) =>
            id === strand.id ? [] : within(cuesInOrder(programme, id), range),
          );
          const slopes = [...inRow, ...others].flatMap((cue) => {
            const { start: from, end: to } = slopesOf(programme, cue);
            return [from, to];
          });
          return (
            <Row
              key={item.key}
              top={item.start}
              row={item.index}
              page={page}
              cues={inRow}
              levels={levels.of}
              others={others}
              slopes={slopes}
              passages={programme.passages}
              pieces={within(pieces, range)}
              beats={instantsWithin(beats, range)}
              hits={within(hits, range)}
              sections={within(sections, range)}
              marks={instantsWithin(marks, range)}
              waves={waves}
              selection={selection.filter((id) => inRow.some((cue) => cue.id === id))}
              picked={picked}
              hand={hand}
              frameRate={facts.frameRate}
              startTimecode={facts.startTimecode}
              length={facts.length}
            />
          );
        })}
        <SaidWord page={page} />
        <Playhead page={page} scroller={scroller} />
        {pointer.band && <Band page={page} band={pointer.band} />}
        {editing !== null && programme.cues[editing] && !programme.cues[editing].passage && (
          <InPlaceText cue={programme.cues[editing]} page={page} close={() => setEditing(null)} />
        )}
      </div>
      {pointer.hint && (
        <div
          className={classes.hint}
          style={{ left: pointer.hint.x + 14, top: pointer.hint.y + 18 }}
          role="status"
        >
          {pointer.hint.text}
        </div>
      )}
    </div>
  );
}

const NO_LEVELS: ReadonlyMap<Id, number> = new Map();

/** How many levels each lane has whose cues may overlap, and the level of each cue that is not on the first. */
function useLevels(
  lanes: readonly Strand[],
  cues: Programme['cues'],
): { readonly count: ReadonlyMap<Id, number>; readonly of: ReadonlyMap<Id, number> } {
  return useMemo(() => {
    const count = new Map<Id, number>();
    const of = new Map<Id, number>();
    for (const { id, overlapAllowed } of lanes) {
      if (!overlapAllowed) continue;
      const row = cuesInOrder({ cues }, id);
      const levels = levelsOf(row);
      count.set(id, levels.count);
      row.forEach((cue, at) => {
        const level = levels.of[at] ?? 0;
        if (level > 0) of.set(cue.id, level);
      });
    }
    return { count, of: of.size > 0 ? of : NO_LEVELS };
  }, [lanes, cues]);
}

const sameItems = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((item, at) => item === b[at]);

const LISTS = new Set([
  'cues',
  'others',
  'slopes',
  'pieces',
  'beats',
  'hits',
  'sections',
  'marks',
  'waves',
  'selection',
  'picked',
]);

/** Redrawn only when something in it has changed. */
const Row = memo(
  function Row({ top, ...content }: RowContent & { top: number }) {
    const canvas = useRef<HTMLCanvasElement>(null);
    const dyes = useDyes();
    useLayoutEffect(() => {
      const context = canvas.current?.getContext('2d');
      if (context) drawRow(context, content, dyes);
    });
    const { width, shape } = content.page;
    const scale = window.devicePixelRatio;
    return (
      <canvas
        ref={canvas}
        className={classes.row}
        width={Math.round(width * scale)}
        height={Math.round(shape.step * scale)}
        style={{ width, height: shape.step, transform: `translateY(${top}px)` }}
        aria-hidden
      />
    );
  },
  (a, b) =>
    (Object.keys(b) as (keyof typeof b)[]).every((key) =>
      LISTS.has(key)
        ? sameItems(a[key] as readonly unknown[], b[key] as readonly unknown[])
        : a[key] === b[key],
    ),
);

/** The outline of every sound that is heard; the same list until one of them changes. */
function useWaves(programme: Programme): readonly Wave[] {
  const sounds = soundsHeard(programme);
  const hashes = sounds.map(({ material }) => programme.materials[material]?.hash);
  const heard = useHeardAll(hashes);
  const now = sounds.map((sound, at) => ({
    peaks: heard[at]?.peaks,
    sound,
    main: sound.material === programme.facts.sound,
  }));
  const last = useRef<readonly Wave[]>([]);
  const same =
    last.current.length === now.length &&
    now.every(
      (wave, at) =>
        last.current[at]?.peaks === wave.peaks &&
        JSON.stringify(last.current[at]?.sound) === JSON.stringify(wave.sound),
    );
  if (!same) last.current = now;
  return last.current;
}

/** Brings what is selected into sight when the selection moves. */
function useShowSelected(
  scroller: React.RefObject<HTMLDivElement | null>,
  page: Page,
  id: string | undefined,
  start: Ticks | undefined,
): void {
  const last = useRef<string | undefined>(undefined);
  useEffect(() => {
    const view = scroller.current;
    if (!view || start === undefined || id === last.current || page.width < 2) return;
    last.current = id;
    bringIntoSight(view, page, start);
  }, [scroller, page, id, start]);
}
