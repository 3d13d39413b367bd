/** A field for a number in a window: what cannot be one is not taken. */
import { NumberInput } from '@mantine/core';

interface CountInputProps {
  readonly label: string;
  readonly value: number;
  readonly set: (value: number) => void;
  readonly min: number;
  readonly max: number;
  /** Width in pixels. */
  readonly w: number;
  readonly suffix?: string;
  /** For numbers that need not be whole: how far an arrow key goes. */
  readonly step?: number;
  readonly off?: boolean;
}

export const CountInput = ({ set, min, step, off = false, ...rest }: CountInputProps) => (
  <NumberInput
    size="xs"
    min={min}
    disabled={off}
    {...(step === undefined ? { allowDecimal: false } : { step, decimalScale: 2 })}
    {...rest}
    onChange={(value) => typeof value === 'number' && value >= min && set(value)}
  />
);
