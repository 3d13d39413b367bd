/** A figure with its unit in the label, between bounds, that tells when another one is typed. */
import { NumberInput } from '@mantine/core';

interface FigureFieldProps {
  /** Ends with the unit. */
  readonly label: string;
  readonly value: number;
  readonly bounds: readonly [least: number, most: number];
  readonly step: number;
  readonly change: (value: number) => void;
}

export const FigureField = ({ label, value, bounds, step, change }: FigureFieldProps) => (
  <NumberInput
    size="xs"
    label={label}
    w={120}
    min={bounds[0]}
    max={bounds[1]}
    step={step}
    decimalScale={3}
    value={value}
    onChange={(next) => typeof next === 'number' && next !== value && change(next)}
  />
);
