/** What lies over the rows: the playhead, the light on the word that is said, and the stretch being selected. */
import { useEffect, useEffectEvent, useLayoutEffect, useRef } from 'react';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import { saidAt } from '@cadence/core/programme/woven/saidAt.ts';
import { currentStrand, openNow } from '../../desk/store.ts';
import { player } from '../../playback/player.ts';
import { useTimeFollower } from '../../playback/usePlayer.ts';
import { pixelsOf, pointOf, type Page } from '@cadence/core/rows/page.ts';
import classes from './Rows.module.css';

/** Scrolls no further than brings the row of an instant into sight. */
export function bringIntoSight(view: HTMLElement, page: Page, time: Ticks): void {
  const top = pointOf(page, time).row * page.shape.step;
  if (top < view.scrollTop) view.scrollTop = top;
  else if (top + page.shape.step > view.scrollTop + view.clientHeight)
    view.scrollTop = top + page.shape.step - view.clientHeight + 20;
}

/** The playhead: a thread with a shuttle for its head, moved without rendering. */
export function Playhead({
  page,
  scroller,
}: {
  page: Page;
  scroller: React.RefObject<HTMLDivElement | null>;
}) {
  const element = useRef<HTMLDivElement>(null);
  const place = (time: Ticks): number => {
    const { row, x } = pointOf(page, time);
    const top = row * page.shape.step;
    if (element.current) element.current.style.transform = `translate(${x}px, ${top}px)`;
    return top;
  };
  /** Where it was when it was last brought into sight; nobody is scrolled back who looks elsewhere. */
  const seen = useRef<Ticks>(undefined);
  const follow = (time: Ticks) => {
    const top = place(time);
    const view = scroller.current;
    if (!view || page.width < 2) return;
    if (player.state().playing) {
      // The row that is read is kept in sight, with the next one under it.
      const below = top + 2 * page.shape.step > view.scrollTop + view.clientHeight;
      if (top < view.scrollTop || below) view.scrollTop = Math.max(0, top - page.shape.step * 0.4);
    } else if (seen.current !== time) bringIntoSight(view, page, time);
    seen.current = time;
  };
  useTimeFollower(follow);
  useLayoutEffect(() => void place(player.time));
  const isWide = page.width >= 2;
  const onWide = useEffectEvent(() => follow(player.time));
  useEffect(() => {
    if (isWide) onWide();
  }, [isWide]);
  const height = page.shape.bottom + 4;
  return (
    <div ref={element} className={classes.playhead} aria-hidden>
      <svg width={28} height={height + 6} viewBox={`-14 -6 28 ${height + 6}`}>
        <path d={`M0 4V${height}`} stroke="var(--madder)" strokeWidth={1.8} />
        <path d="M-13 4Q0 -5 13 4Q0 10 -13 4Z" fill="var(--madder)" />
        <path d="M-5 4H5" stroke="var(--linen)" strokeWidth={1.4} />
      </svg>
    </div>
  );
}

/** A light on the word that is said. */
export function SaidWord({ page }: { page: Page }) {
  const element = useRef<HTMLDivElement>(null);
  const place = (time: Ticks) => {
    const light = element.current;
    if (!light) return;
    const { programme } = openNow();
    const said = saidAt(programme, currentStrand(programme), time);
    light.hidden = !said;
    if (!said) return;
    const { row } = pointOf(page, time);
    const start = row * page.span;
    const left = pixelsOf(page, Math.max(0, said.word.start - start));
    const right = pixelsOf(page, Math.min(page.span, said.word.end - start));
    const top = row * page.shape.step + page.shape.waveTop;
    light.style.transform = `translate(${left}px, ${top}px)`;
    light.style.width = `${Math.max(2, right - left)}px`;
  };
  useTimeFollower(place);
  useLayoutEffect(() => place(player.time));
  const { waveTop, lanes } = page.shape;
  return (
    <div
      ref={element}
      className={classes.said}
      style={{ height: (lanes[0]?.top ?? waveTop) - waveTop }}
      aria-hidden
    />
  );
}

/** The stretch that is being selected, over every row that it crosses. */
export function Band({ page, band }: { page: Page; band: { start: Ticks; end: Ticks } }) {
  const [from, to] = [pointOf(page, band.start), pointOf(page, band.end)];
  const parts = Array.from({ length: to.row - from.row + 1 }, (_, at) => {
    const row = from.row + at;
    const left = at === 0 ? from.x : 0;
    const right = row === to.row ? to.x : page.width;
    return { row, left, width: right - left };
  });
  return parts.map((part) => (
    <div
      key={part.row}
      className={classes.band}
      style={{
        left: part.left,
        width: part.width,
        top: part.row * page.shape.step + page.shape.waveTop,
        height: page.shape.bottom - page.shape.waveTop,
      }}
    />
  ));
}
