/** What a text does while it stays, as it is set. */
import { ActionIcon, Button, Menu } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import { Fragment } from 'react';
import { FLASH } from '@cadence/core/movement/flashes.ts';
import {
  framesLong,
  type Stay,
  type StayKind,
  type UnitKind,
} from '@cadence/core/movement/movement.ts';
import { STRETCH } from '@cadence/core/movement/stretching.ts';
import { UNDERLINE } from '@cadence/core/scene/underline.ts';
import { HEARD_CHOICE } from './heardTimes.ts';
import { Choice, Colour, Figure, UNITS } from './fields.tsx';
import { VALUES, ValuesFields } from './ValuesFields.tsx';
import classes from './PatternsPlace.module.css';

const STAYS: Readonly<
  Record<StayKind, { says: string; unit: string; scale: number; usual: Partial<Stay> }>
> = {
  grows: { says: 'grows to', unit: '%', scale: 0.01, usual: { amount: 1.1 } },
  drifts: { says: 'drifts by', unit: 'em', scale: 1, usual: { amount: 0.5, angle: 0 } },
  breathes: { says: 'breathes by', unit: '%', scale: 0.01, usual: { amount: 0.03 } },
  sways: { says: 'sways by', unit: '°', scale: 1, usual: { amount: 2 } },
  pulses: {
    says: 'pulses by',
    unit: '%',
    scale: 0.01,
    usual: { amount: 0.04, on: 'beats' },
  },
  swells: {
    says: 'swells with the loudness by',
    unit: '%',
    scale: 0.01,
    usual: { amount: 0.1 },
  },
  stretches: { says: 'stretches while held by', unit: '%', scale: 0.01, usual: STRETCH },
  trembles: { says: 'trembles by', unit: 'em', scale: 1, usual: { amount: 0.02, seed: 1 } },
  underlines: { says: 'underlines by', unit: 'em', scale: 1, usual: UNDERLINE },
  values: { says: 'has values at times', unit: '', scale: 1, usual: VALUES },
  flashes: { says: 'flashes by', unit: '%', scale: 0.01, usual: FLASH },
};

export function StaysForm({
  stays,
  set,
}: {
  stays: readonly Stay[];
  set: (stays: readonly Stay[]) => void;
}) {
  return (
    <section className={classes.part} aria-label="Stays">
      <h3>Stays</h3>
      {stays.map((stay, at) => {
        const { says, unit, scale } = STAYS[stay.what];
        const change = (part: Partial<Stay>) =>
          set(stays.map((each, place) => (place === at ? { ...each, ...part } : each)));
        return (
          <Fragment key={`${stay.what}${at}`}>
            <div className={classes.three}>
              <span className={classes.says}>{says}</span>
              {stay.what === 'values' ? (
                <span />
              ) : (
                <Figure
                  label="amount"
                  suffix={unit}
                  min={-1000}
                  step={unit === 'em' ? 0.01 : 1}
                  value={(stay.amount ?? 0) / scale}
                  set={(amount) => change({ amount: amount * scale })}
                />
              )}
              {stay.what === 'flashes' ? (
                <OnChoice stay={stay} change={change} />
              ) : stay.what === 'underlines' ? (
                <span className={classes.says}>as it is said</span>
              ) : (
                <Choice
                  label="each"
                  data={UNITS.map((value) => ({ value, label: value }))}
                  value={stay.by}
                  set={(by) => change({ by: by as UnitKind })}
                />
              )}
              <ActionIcon
                aria-label={`Remove “${says}”`}
                variant="subtle"
                onClick={() => set(stays.filter((_, place) => place !== at))}
              >
                <IconX size={14} />
              </ActionIcon>
            </div>
            {stay.what === 'values' && <ValuesFields stay={stay} change={change} />}
            {stay.what === 'pulses' && <OnChoice stay={stay} change={change} />}
            {stay.what === 'flashes' && <FlashFields stay={stay} change={change} />}
            {stay.what === 'stretches' && <StretchFields stay={stay} change={change} />}
            {stay.what === 'underlines' && (
              <Colour
                label="Colour of the line"
                value={stay.colour ?? UNDERLINE.colour}
                set={(colour) => change({ colour })}
              />
            )}
          </Fragment>
        );
      })}
      <Menu position="bottom-start" width={200}>
        <Menu.Target>
          <Button leftSection={<IconPlus size={14} />}>Add a movement</Button>
        </Menu.Target>
        <Menu.Dropdown>
          {(Object.keys(STAYS) as StayKind[]).map((what) => (
            <Menu.Item
              key={what}
              onClick={() => set([...stays, { what, by: 'whole', ...STAYS[what].usual }])}
            >
              {STAYS[what].says.replace(/ (?:to|by)$/, '')}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
    </section>
  );
}

interface StayProps {
  readonly stay: Stay;
  readonly change: (part: Partial<Stay>) => void;
}

const OnChoice = ({ stay, change }: StayProps) => (
  <Choice
    label="on"
    data={HEARD_CHOICE}
    value={stay.on ?? STAYS[stay.what].usual.on ?? FLASH.on}
    set={(on) => change({ on: on as NonNullable<Stay['on']> })}
  />
);

const InFrames = ({
  label,
  min,
  usual,
  stay,
  change,
}: StayProps & { readonly label: string; readonly min: number; readonly usual: number }) => (
  <Figure
    label={label}
    suffix="frames"
    min={min}
    value={stay.period?.in === 'frames' ? stay.period.count : usual}
    set={(count) => change({ period: framesLong(Math.round(count)) })}
  />
);

const StretchFields = ({ stay, change }: StayProps) => (
  <div className={classes.two}>
    <Choice
      label="What stretches"
      data={[
        { value: 'width', label: 'its width' },
        { value: 'height', label: 'its height' },
        { value: 'scale', label: 'its size' },
      ]}
      value={stay.moves ?? STRETCH.moves}
      set={(moves) => change({ moves: moves as NonNullable<Stay['moves']> })}
    />
    <InFrames label="Springs back in" min={0} usual={STRETCH.period.count} {...{ stay, change }} />
  </div>
);

const FlashFields = ({ stay, change }: StayProps) => (
  <div className={classes.two}>
    <Colour
      label="Colour of the flash"
      value={stay.colour ?? FLASH.colour}
      set={(colour) => change({ colour })}
    />
    <Choice
      label="Where"
      data={[
        { value: 'frame', label: 'over the frame' },
        { value: 'behind', label: 'behind the text' },
      ]}
      value={stay.over ?? FLASH.over}
      set={(over) => change({ over: over as NonNullable<Stay['over']> })}
    />
    <InFrames label="Dies away in" min={1} usual={FLASH.period.count} {...{ stay, change }} />
    <Figure
      label="On one in"
      min={1}
      max={1000}
      value={stay.every ?? 1}
      set={(every) => change({ every: Math.round(every) })}
    />
  </div>
);
