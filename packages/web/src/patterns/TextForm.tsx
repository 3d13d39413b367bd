/** How text looks: its font and letters, its colours, and what is around and behind it. */
import { Checkbox } from '@mantine/core';
import {
  LETTER_CASES,
  type Gradient,
  type Plate,
  type Shadow,
  type TextStyle,
} from '@cadence/core/programme/programme.ts';
import { LEAST_SIZE, MOST_SIZE } from '@cadence/core/scene/placing.ts';
import { FontSelect } from '../picture/FontSelect.tsx';
import { shelf } from '../picture/studio.ts';
import { Choice, Colour, Figure } from './fields.tsx';
import classes from './PatternsPlace.module.css';

/** What each is as it is put on. */
const GRADIENT: Gradient = { colour: '#e8c15a', angle: 90 };
const SHADOW: Shadow = { colour: '#000000', opacity: 0.7, across: 0, down: 4, blur: 6 };
const PLATE: Plate = {
  behind: 'line',
  colour: '#14171c',
  opacity: 0.78,
  across: 0.4,
  down: 0.06,
  corner: 0.1,
};

interface Props {
  readonly style: TextStyle;
  readonly set: (part: Partial<TextStyle>) => void;
}

export function TextForm({ style, set }: Props) {
  const axes = shelf.axesOf(style.family);
  const { gradient, shadow, plate } = style;
  return (
    <section className={classes.part} aria-label="Text">
      <h3>Text</h3>
      <div className={classes.two}>
        <FontSelect label="Font" value={style.family} set={(family) => set({ family })} />
        <Figure
          label="Size"
          suffix="px"
          value={Math.round(style.size * 10) / 10}
          min={LEAST_SIZE}
          max={MOST_SIZE}
          set={(size) => set({ size })}
        />
        <Choice
          label="Letters"
          data={LETTER_CASES.map((value) => ({ value, label: value }))}
          value={style.letterCase ?? 'as written'}
          set={(letterCase) => set({ letterCase: letterCase as (typeof LETTER_CASES)[number] })}
        />
        <Figure
          label="Letter spacing"
          suffix="em"
          value={style.letterSpacing ?? 0}
          min={-0.2}
          max={2}
          step={0.01}
          set={(letterSpacing) => set({ letterSpacing })}
        />
        {axes.wght && (
          <Figure
            label="Weight"
            value={style.weight ?? 500}
            min={axes.wght[0]}
            max={axes.wght[1]}
            step={25}
            set={(weight) => set({ weight })}
          />
        )}
        {axes.wdth && (
          <Figure
            label="Width of letters"
            suffix="%"
            value={style.width ?? 100}
            min={axes.wdth[0]}
            max={axes.wdth[1]}
            step={5}
            set={(width) => set({ width })}
          />
        )}
        <Colour label="Colour" value={style.colour} set={(colour) => set({ colour })} />
        <Figure
          label="At most as wide as (0: as it is)"
          suffix="% of the frame"
          value={(style.fitWidth ?? 0) * 100}
          max={100}
          step={5}
          set={(width) => set({ fitWidth: width > 0 ? Math.max(0.01, width / 100) : null })}
        />
        <Colour
          label="Outline colour"
          value={style.outlineColour}
          set={(outlineColour) => set({ outlineColour })}
        />
        <Figure
          label="Outline"
          suffix="px"
          value={Math.round(style.outlineWidth * 10) / 10}
          max={100}
          set={(outlineWidth) => set({ outlineWidth })}
        />
      </div>
      <div className={classes.ticks}>
        <Tick label="Bold" on={style.bold ?? false} set={(bold) => set({ bold })} />
        <Tick
          label="Gradient"
          on={Boolean(gradient)}
          set={(on) => set({ gradient: on ? GRADIENT : null })}
        />
        <Tick
          label="Shadow"
          on={Boolean(shadow)}
          set={(on) => set({ shadow: on ? SHADOW : null })}
        />
        <Tick label="Plate" on={Boolean(plate)} set={(on) => set({ plate: on ? PLATE : null })} />
      </div>
      {gradient && (
        <GradientForm
          gradient={gradient}
          set={(part) => set({ gradient: { ...gradient, ...part } })}
        />
      )}
      {shadow && (
        <ShadowForm shadow={shadow} set={(part) => set({ shadow: { ...shadow, ...part } })} />
      )}
      {plate && <PlateForm plate={plate} set={(part) => set({ plate: { ...plate, ...part } })} />}
    </section>
  );
}

const Tick = ({
  label,
  on,
  set,
}: {
  readonly label: string;
  readonly on: boolean;
  readonly set: (on: boolean) => void;
}) => (
  <Checkbox
    size="xs"
    label={label}
    checked={on}
    onChange={(event) => set(event.currentTarget.checked)}
  />
);

/** How opaque something is, told in per cent. */
const Opacity = ({
  label,
  value,
  set,
}: {
  readonly label: string;
  readonly value: number;
  readonly set: (opacity: number) => void;
}) => (
  <Figure
    label={label}
    suffix="%"
    max={100}
    step={5}
    value={value * 100}
    set={(share) => set(share / 100)}
  />
);

const GradientForm = ({
  gradient,
  set,
}: {
  readonly gradient: Gradient;
  readonly set: (part: Partial<Gradient>) => void;
}) => (
  <div className={classes.two}>
    <Colour label="Goes over into" value={gradient.colour} set={(colour) => set({ colour })} />
    <Figure
      label="Towards (0 right, 90 down)"
      suffix="°"
      value={gradient.angle}
      min={-360}
      max={360}
      step={15}
      set={(angle) => set({ angle })}
    />
  </div>
);

const ShadowForm = ({
  shadow,
  set,
}: {
  readonly shadow: Shadow;
  readonly set: (part: Partial<Shadow>) => void;
}) => (
  <div className={classes.two}>
    <Colour label="Shadow colour" value={shadow.colour} set={(colour) => set({ colour })} />
    <Opacity label="Shadow" value={shadow.opacity} set={(opacity) => set({ opacity })} />
    <Figure
      label="Falls to the right by"
      suffix="px"
      min={-400}
      max={400}
      value={shadow.across}
      set={(across) => set({ across })}
    />
    <Figure
      label="Falls down by"
      suffix="px"
      min={-400}
      max={400}
      value={shadow.down}
      set={(down) => set({ down })}
    />
    <Figure
      label="Blurred by"
      suffix="px"
      max={400}
      value={shadow.blur}
      set={(blur) => set({ blur })}
    />
  </div>
);

const PlateForm = ({
  plate,
  set,
}: {
  readonly plate: Plate;
  readonly set: (part: Partial<Plate>) => void;
}) => (
  <div className={classes.two}>
    <Choice
      label="Plate behind"
      data={[
        { value: 'word', label: 'each word' },
        { value: 'line', label: 'each line' },
        { value: 'whole', label: 'the whole' },
      ]}
      value={plate.behind}
      set={(behind) => set({ behind: behind as Plate['behind'] })}
    />
    <Colour label="Plate colour" value={plate.colour} set={(colour) => set({ colour })} />
    <Opacity label="Plate" value={plate.opacity} set={(opacity) => set({ opacity })} />
    <Figure
      label="Corners rounded by"
      suffix="em"
      max={20}
      step={0.05}
      value={plate.corner}
      set={(corner) => set({ corner })}
    />
    <Figure
      label="Wider by, each side"
      suffix="em"
      max={20}
      step={0.05}
      value={plate.across}
      set={(across) => set({ across })}
    />
    <Figure
      label="Higher by, each side"
      suffix="em"
      max={20}
      step={0.05}
      value={plate.down}
      set={(down) => set({ down })}
    />
  </div>
);
