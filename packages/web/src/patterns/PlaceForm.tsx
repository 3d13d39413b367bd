/** Where text stands on the frame, and how it is turned and broken, in numbers. */
import { Button } from '@mantine/core';
import type { Cue, Programme, TextStyle } from '@cadence/core/programme/programme.ts';
import { layOut, placeOfBox } from '@cadence/core/scene/layout.ts';
import { shelf } from '../picture/studio.ts';
import { Choice, Figure } from './fields.tsx';
import classes from './PatternsPlace.module.css';

interface Props {
  readonly style: TextStyle;
  readonly cue: Cue | undefined;
  readonly frame: Programme['facts']['frame'];
  readonly set: (part: Partial<TextStyle>) => void;
}

/** Pixels as they are told. */
const inTenths = (pixels: number): number => Math.round(pixels * 10) / 10;

const named = (...values: string[]) => values.map((value) => ({ value, label: value }));

export function PlaceForm({ style, cue, frame, set }: Props) {
  const { box } = layOut(cue?.text ?? [], style, frame, shelf);
  const place = style.placed ?? placeOfBox(box, style, frame);
  const put = (part: Partial<typeof place>) => set({ placed: { ...place, ...part } });
  /** Another side to be set by; text that was put by hand stays where it is. */
  const setBy = (part: Partial<Pick<TextStyle, 'across' | 'down'>>) =>
    set({
      ...part,
      ...(style.placed && { placed: placeOfBox(box, { ...style, ...part }, frame) }),
    });
  const sides = { left: 'Left side', centre: 'Middle across', right: 'Right side' };
  const levels = { top: 'Top', middle: 'Middle down', bottom: 'Bottom' };
  return (
    <section className={classes.part} aria-label="Place">
      <h3>Place</h3>
      <div className={classes.two}>
        <Choice
          label="Lines stand"
          data={named('left', 'centre', 'right')}
          value={style.across}
          set={(across) => setBy({ across: across as TextStyle['across'] })}
        />
        <Choice
          label="From the"
          data={named('top', 'middle', 'bottom')}
          value={style.down}
          set={(down) => setBy({ down: down as TextStyle['down'] })}
        />
        <Figure
          label={`${sides[style.across]} at`}
          suffix="px"
          value={inTenths(place.x * frame.width)}
          min={-frame.width}
          max={2 * frame.width}
          set={(x) => put({ x: x / frame.width })}
        />
        <Figure
          label={`${levels[style.down]} at`}
          suffix="px"
          value={inTenths(place.y * frame.height)}
          min={-frame.height}
          max={2 * frame.height}
          set={(y) => put({ y: y / frame.height })}
        />
        <Figure
          label="Turned by"
          suffix="°"
          value={style.turn ?? 0}
          min={-180}
          max={180}
          set={(turn) => set({ turn })}
        />
        <Figure
          label="Lines broken at (0: never)"
          suffix="px"
          value={inTenths((style.breakAt ?? 0) * frame.width)}
          max={4 * frame.width}
          step={10}
          set={(width) => set({ breakAt: width > 0 ? Math.max(0.01, width / frame.width) : null })}
        />
        <Figure
          label="Between lines"
          suffix="times the size"
          value={style.lineSpacing}
          min={0.5}
          max={5}
          step={0.05}
          set={(lineSpacing) => set({ lineSpacing })}
        />
        {style.placed ? (
          <Button style={{ alignSelf: 'end' }} onClick={() => set({ placed: null })}>
            Back to the margin
          </Button>
        ) : (
          <Figure
            label="Margin"
            suffix="px"
            value={style.margin}
            min={-1000}
            max={4000}
            set={(margin) => set({ margin })}
          />
        )}
      </div>
    </section>
  );
}
