/** Fields of the inspector. */
import { ColorInput, NumberInput, SegmentedControl, Select } from '@mantine/core';
import type { UnitKind } from '@cadence/core/movement/movement.ts';

export const UNITS = ['letter', 'word', 'line', 'whole'];

interface NumberProps {
  readonly label: string;
  readonly value: number;
  readonly set: (value: number) => void;
  readonly suffix?: string;
  readonly min?: number;
  readonly max?: number;
  readonly step?: number;
}

export function Figure({
  label,
  value,
  set,
  suffix = '',
  min = 0,
  max = 10_000,
  step = 1,
}: NumberProps) {
  return (
    <NumberInput
      size="xs"
      label={label}
      suffix={suffix && ` ${suffix}`}
      value={Math.round(value * 1000) / 1000}
      min={min}
      max={max}
      step={step}
      decimalScale={3}
      onChange={(next) => {
        if (typeof next === 'number' && next >= min && next <= max && next !== value) set(next);
      }}
    />
  );
}

export function Choice({
  label,
  data,
  value,
  set,
}: {
  label: string;
  data: { value: string; label: string }[];
  value: string;
  set: (value: string) => void;
}) {
  return (
    <Select
      size="xs"
      label={label}
      data={data}
      value={value}
      allowDeselect={false}
      onChange={(next) => next !== null && next !== value && set(next)}
    />
  );
}

interface ColourProps {
  readonly label: string;
  readonly value: string;
  readonly set: (colour: string) => void;
}

export const Colour = ({ label, value, set }: ColourProps) => (
  <ColorInput
    size="xs"
    label={label}
    format="hex"
    value={value}
    onChangeEnd={(colour) => colour !== value && set(colour)}
  />
);

/** The parts in which a text moves. */
export const By = ({ value, set }: { value: UnitKind; set: (by: UnitKind) => void }) => (
  <SegmentedControl
    aria-label="By"
    fullWidth
    data={value === 'syllable' ? ['letter', 'syllable', 'word', 'line', 'whole'] : UNITS}
    value={value}
    onChange={(by) => set(by as UnitKind)}
  />
);
