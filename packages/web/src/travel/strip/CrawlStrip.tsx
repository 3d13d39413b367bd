/** A crawl whole: its text wrapped like lines on a page, each as long as its window is wide, with the window on it. */
import { useElementSize, useMergedRef } from '@mantine/hooks';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Crawl } from '@cadence/core/programme/passage.ts';
import { crawlText } from '@cadence/core/scene/crawlItems.ts';
import { laidCrawl } from '@cadence/core/scene/travelling.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import { NO_PICTURES } from '@cadence/paint/stage.ts';
import { PictureView } from '../../picture/PictureView.tsx';
import { shelf, stage } from '../../picture/studio.ts';
import { player } from '../../playback/player.ts';
import { useTimeFollower } from '../../playback/usePlayer.ts';
import { comeAt, timeComeTo, type Coming } from '@cadence/core/scene/coming.ts';
import { useDraggedTime } from './useDraggedTime.ts';
import classes from './Strip.module.css';

/** Space between two rows, in pixels of the interface. */
const GAP = 5;
const PAD = 10;

export function CrawlStrip({ coming }: { coming: Coming & { passage: Crawl } }) {
  const { ref, width, height } = useElementSize();
  const canvas = useRef<HTMLCanvasElement>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const sized = useMergedRef(ref, scroller);
  const [top, setTop] = useState(0);
  const { facts, passage, cue } = coming;
  const { frame } = facts;
  const { pane, width: long } = laidCrawl(passage, frame, shelf);
  const wide = Math.max(1, pane.to - pane.from);
  const scale = Math.max(0.01, (width - 2 * PAD) / wide);
  const rowHeight = Math.max(18, Math.round(pane.height * scale)) + GAP;
  const rows = Math.max(1, Math.ceil(long / wide));
  const density = Math.min(2, globalThis.devicePixelRatio);

  const draw = useCallback(
    (time: Ticks) => {
      const context = canvas.current?.getContext('2d');
      if (!context || width === 0) return;
      context.setTransform(density, 0, 0, density, 0, 0);
      context.clearRect(0, 0, width, height);
      const offset = comeAt(coming, time);
      // As it is read, whichever way it goes.
      const read: Crawl = { ...passage, look: { ...passage.look, towards: 'left', softEdge: 0 } };
      const first = Math.max(0, Math.floor((top - PAD) / rowHeight));
      const last = Math.min(rows - 1, Math.ceil((top + height) / rowHeight));
      for (let row = first; row <= last; row++) {
        const y = PAD + row * rowHeight - top;
        const high = rowHeight - GAP;
        // What is in its window now.
        const [from, to] = [offset - wide - row * wide, offset - row * wide].map((at) =>
          Math.min(wide, Math.max(0, at)),
        ) as [number, number];
        context.fillStyle = 'rgb(255 255 255 / 6%)';
        context.fillRect(PAD, y, Math.min(wide, long - row * wide) * scale, high);
        if (to > from) {
          context.fillStyle = 'rgb(255 255 255 / 20%)';
          context.fillRect(PAD + from * scale, y, (to - from) * scale, high);
        }
        context.save();
        context.beginPath();
        context.rect(PAD, y, wide * scale, high);
        context.clip();
        context.translate(
          PAD - pane.from * scale,
          y + high / 2 - (pane.top + pane.height / 2) * scale,
        );
        const items = crawlText(read, cue.id, wide * (row + 1), frame, shelf);
        stage.draw(context, { ...frame, items }, NO_PICTURES, scale);
        context.restore();
      }
    },
    [
      coming,
      width,
      height,
      top,
      wide,
      long,
      scale,
      rowHeight,
      rows,
      density,
      pane,
      cue.id,
      frame,
      passage,
    ],
  );
  const last = useRef<Ticks | null>(null);
  useTimeFollower((time) => {
    if (last.current === time) return;
    last.current = time;
    draw(time);
    // The row that is read is kept in sight.
    const view = scroller.current;
    if (!view || !player.state().playing) return;
    const row = Math.floor((comeAt(coming, time) - wide / 2) / wide);
    const at = PAD + row * rowHeight;
    if (at < view.scrollTop || at + rowHeight > view.scrollTop + view.clientHeight)
      view.scrollTop = Math.max(0, at - rowHeight);
  });
  useEffect(() => draw(player.time), [draw]);

  /** The time at which the text at a point is in the middle of the window. */
  const timeAt = (x: number, y: number): Ticks => {
    const row = Math.min(rows - 1, Math.max(0, Math.floor((y - PAD) / rowHeight)));
    const at = row * wide + Math.min(wide, Math.max(0, (x - PAD) / scale));
    return timeComeTo(coming, at + wide / 2);
  };
  const drag = useDraggedTime((begun: { x: number; y: number }, delta) =>
    timeAt(begun.x + delta.x, begun.y + delta.y),
  );
  return (
    <div className={classes.crawl}>
      <PictureView />
      <div
        ref={sized}
        className={classes.scroller}
        onScroll={(event) => setTop(event.currentTarget.scrollTop)}
        onPointerDown={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          const at = {
            x: event.clientX - box.left,
            y: event.clientY - box.top + event.currentTarget.scrollTop,
          };
          player.seek(timeAt(at.x, at.y));
          drag.begin(event, at);
        }}
      >
        <div style={{ height: rows * rowHeight + 2 * PAD }} className={classes.spacer}>
          <div className={classes.sticky} style={{ height }}>
            <canvas
              ref={canvas}
              role="img"
              aria-label="Overview of the crawl"
              width={Math.round(width * density)}
              height={Math.round(height * density)}
            />
          </div>
        </div>
      </div>
    </div>
  );
}
