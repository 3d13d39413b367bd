/** A still picture, and what of it is seen where it stands behind the text. */
import { Button, SegmentedControl } from '@mantine/core';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { setBackdrop } from '@cadence/core/programme/edits/programme/setFacts.ts';
import type { Backdrop, Material } from '@cadence/core/programme/programme.ts';
import { materialUrl } from '../sync/api.ts';
import { draft, keepDraft, make } from '../desk/desk.ts';
import { openNow, useShown } from '../desk/store.ts';
import classes from './MaterialPlace.module.css';

const set = (part: Partial<Backdrop>): void => void make(setBackdrop(openNow().programme, part));
const within = (share: number): number => Math.min(1, Math.max(0, share));
/** How far an arrow key takes the handle, as a share of what is cut off. */
const STEP = 0.05;

export function Still({ material }: { material: Material }) {
  const { backdrop, frame } = useShown((programme) => programme.facts);
  const area = useRef<HTMLDivElement>(null);
  const { width, height } = material.picture ?? { width: 1, height: 1 };
  const used = backdrop.image === material.id;
  const fills = backdrop.fill ?? true;
  // The part of the picture that the frame shows, as shares of it.
  const scale = Math.max(frame.width / width, frame.height / height);
  const [wide, high] = [frame.width / (width * scale), frame.height / (height * scale)];
  const [across, down] = [backdrop.across ?? 0.5, backdrop.down ?? 0.5];
  const drag = (event: PointerEvent<HTMLDivElement>): void => {
    const box = area.current?.getBoundingClientRect();
    if (!box || event.button !== 0) return;
    const [x, y] = [event.clientX, event.clientY];
    const handle = event.currentTarget;
    handle.setPointerCapture(event.pointerId);
    handle.onpointermove = (moved) => {
      const [dx, dy] = [(moved.clientX - x) / box.width, (moved.clientY - y) / box.height];
      draft(
        setBackdrop(openNow().programme, {
          across: wide < 1 ? within(across + dx / (1 - wide)) : across,
          down: high < 1 ? within(down + dy / (1 - high)) : down,
        }),
      );
    };
    handle.onpointerup = handle.onpointercancel = () => {
      handle.onpointermove = null;
      keepDraft();
    };
  };
  const step = (event: KeyboardEvent): void => {
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [-STEP, 0],
      ArrowRight: [STEP, 0],
      ArrowUp: [0, -STEP],
      ArrowDown: [0, STEP],
    };
    const by = steps[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    set({ across: within(across + by[0]), down: within(down + by[1]) });
  };
  return (
    <>
      <div ref={area} className={classes.still} style={{ aspectRatio: `${width} / ${height}` }}>
        <img src={materialUrl(material.hash)} alt={material.name} />
        {used && fills && (
          <div
            className={classes.crop}
            role="slider"
            tabIndex={0}
            aria-label="Crop: drag, or use the arrow keys"
            aria-valuenow={Math.round((wide < 1 ? across : down) * 100)}
            style={{
              width: `${wide * 100}%`,
              height: `${high * 100}%`,
              left: `${across * (1 - wide) * 100}%`,
              top: `${down * (1 - high) * 100}%`,
            }}
            onPointerDown={drag}
            onKeyDown={step}
          />
        )}
      </div>
      {used && (
        <div className="bar">
          <SegmentedControl
            aria-label="Fit"
            data={[
              { value: 'fill', label: 'Fill the frame' },
              { value: 'fit', label: 'Show all of it' },
            ]}
            value={fills ? 'fill' : 'fit'}
            onChange={(value) => set({ fill: value === 'fill' })}
          />
          <Button onClick={() => set({ image: null })}>Remove the background</Button>
        </div>
      )}
    </>
  );
}
