/** A roll as one tall strip: what comes below the frame, what has gone above it, and the whole beside it. */
import { useElementSize } from '@mantine/hooks';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import type { Roll } from '@cadence/core/programme/passage.ts';
import { rollItems, topOfRoll } from '@cadence/core/scene/rollItems.ts';
import { laidRoll } from '@cadence/core/scene/travelling.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import { useShown } from '../../desk/store.ts';
import { PictureView } from '../../picture/PictureView.tsx';
import { shelf, stage } from '../../picture/studio.ts';
import { player } from '../../playback/player.ts';
import { useTimeFollower } from '../../playback/usePlayer.ts';
import { comeAt, timeComeTo, type Coming } from '@cadence/core/scene/coming.ts';
import { useDraggedTime } from './useDraggedTime.ts';
import classes from './Strip.module.css';

/** How strong text is that is out of sight. */
const BESIDE = 0.5;

export function RollStrip({ coming }: { coming: Coming & { passage: Roll } }) {
  const { ref, width, height } = useElementSize();
  const canvas = useRef<HTMLCanvasElement>(null);
  const materials = useShown((programme) => programme.materials);
  const { facts, passage, cue } = coming;
  const { frame } = facts;
  const scale = width / frame.width;
  const window = { top: Math.round((height - frame.height * scale) / 2) };
  const density = Math.min(2, globalThis.devicePixelRatio);

  const drawn = useRef(0);
  const draw = useCallback(
    async (time: Ticks) => {
      if (width === 0) return;
      const top = topOfRoll(laidRoll(passage, frame), comeAt(coming, time), frame);
      const [from, to] = [-window.top / scale, (height - window.top) / scale];
      const items = rollItems(
        { roll: passage, cue: cue.id, frame, materials, top, from, to },
        shelf,
      ).map((item) => {
        const { window: _window, ...rest } = item as typeof item & { window?: unknown };
        return { ...rest, opacity: BESIDE };
      });
      const list = { ...frame, items };
      const turn = ++drawn.current;
      const pictures = await stage.pictures(list, { materials });
      const context = canvas.current?.getContext('2d');
      if (!context || turn !== drawn.current) return;
      context.setTransform(density, 0, 0, density, 0, 0);
      context.clearRect(0, 0, width, height);
      context.translate(0, window.top);
      stage.draw(context, list, pictures, scale);
    },
    [coming, materials, width, height, window.top, scale, density, cue.id, frame, passage],
  );
  const last = useRef<Ticks | null>(null);
  useTimeFollower((time) => {
    if (last.current === time) return;
    last.current = time;
    void draw(time);
  });
  useEffect(() => void draw(player.time), [draw]);

  const forward = passage.look.downwards ? 1 : -1;
  const drag = useDraggedTime((begun: number, delta) =>
    timeComeTo(coming, begun + (forward * delta.y) / scale),
  );
  return (
    <div className={classes.roll}>
      <div
        ref={ref}
        className={classes.tall}
        onPointerDown={(event) => drag.begin(event, comeAt(coming, player.time))}
        onWheel={(event) => {
          player.seek(
            timeComeTo(coming, comeAt(coming, player.time) - (forward * event.deltaY) / scale),
          );
        }}
      >
        <canvas
          ref={canvas}
          aria-hidden
          width={Math.round(width * density)}
          height={Math.round(height * density)}
        />
        <div className={classes.window} style={{ top: window.top }}>
          <PictureView />
        </div>
      </div>
      <Overview coming={coming} />
    </div>
  );
}

/** The whole roll, however long, with the frame on it. */
function Overview({ coming }: { coming: Coming & { passage: Roll } }) {
  const { ref, width, height } = useElementSize();
  const canvas = useRef<HTMLCanvasElement>(null);
  const thumb = useRef<HTMLDivElement>(null);
  const { facts, passage, figures } = coming;
  const { layout, look } = useMemo(() => laidRoll(passage, facts.frame), [passage, facts.frame]);
  const whole = layout.height + 2 * facts.frame.height;
  const scale = height / whole;

  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || height === 0) return;
    context.clearRect(0, 0, width, height);
    context.fillStyle = 'rgb(255 255 255 / 55%)';
    const top = facts.frame.height;
    for (const { top: at, height: high, kind, text } of layout.texts) {
      const wide = Math.min(width - 6, 3 + (text.length / 40) * width);
      const x =
        kind === 'role'
          ? width / 2 - wide / 2 - 1
          : kind === 'name'
            ? width / 2
            : (width - wide) / 2;
      const share = kind === 'role' || kind === 'name' ? wide / 2 : wide;
      context.fillRect(x, (top + at) * scale, share, Math.max(0.6, high * scale * 0.4));
    }
  }, [layout, width, height, scale, facts.frame.height]);

  const place = (time: Ticks) => {
    const offset = comeAt(coming, time);
    // From the top of the strip to the top of the frame.
    const at = look.downwards ? layout.height + facts.frame.height - offset : offset;
    if (thumb.current) thumb.current.style.transform = `translateY(${at * scale}px)`;
  };
  useTimeFollower(place);
  useEffect(() => place(player.time));
  const seek = (y: number): void => {
    const at = y / scale - facts.frame.height / 2;
    const offset = look.downwards ? layout.height + facts.frame.height - at : at;
    player.seek(timeComeTo(coming, offset));
  };
  const drag = useDraggedTime((begun: number, delta) => {
    seek(begun + delta.y);
    return undefined;
  });
  return (
    <div
      ref={ref}
      className={classes.whole}
      role="slider"
      tabIndex={0}
      data-keys
      aria-label="Position of the roll"
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={Math.round(figures.way.distance)}
      aria-valuenow={Math.round(comeAt(coming, player.time) - figures.way.from)}
      onPointerDown={(event) => {
        const y = event.clientY - event.currentTarget.getBoundingClientRect().top;
        seek(y);
        drag.begin(event, y);
      }}
    >
      <canvas ref={canvas} width={width} height={height} aria-hidden />
      <div
        ref={thumb}
        className={classes.thumb}
        style={{ height: Math.max(6, facts.frame.height * scale) }}
      />
    </div>
  );
}
