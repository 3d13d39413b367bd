/** A field for a figure between bounds, that tells when another one is typed. */
import { NumberInput } from '@mantine/core';

interface FigureFieldProps {
  /** Ends with the unit, unless `suffix` has it. */
  readonly label: string;
  readonly value: number;
  readonly bounds: readonly [least: number, most: number];
  /** How far an arrow key goes; without it, the figure is a whole number. */
  readonly step?: number;
  readonly change: (value: number) => void;
  readonly suffix?: string;
  /** Width in pixels. */
  readonly width?: number;
}

export const FigureField = (props: FigureFieldProps) => {
  const { label, value, bounds, step, change, suffix, width = 120 } = props;
  const [least, most] = bounds;
  return (
    <NumberInput
      size="xs"
      label={label}
      w={width}
      min={least}
      max={most}
      {...(step === undefined ? { allowDecimal: false } : { step, decimalScale: 3 })}
      {...(suffix !== undefined && { suffix })}
      value={value}
      onChange={(next) =>
        typeof next === 'number' && next >= least && next !== value && change(next)
      }
    />
  );
};
