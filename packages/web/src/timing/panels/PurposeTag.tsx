/** The tag of a mark's purpose, as on the rows. */
import type { Purpose } from '@cadence/core/programme/programme.ts';
import { PURPOSE_LOOKS } from '../purposes.ts';

export function PurposeTag({ purpose }: { purpose: Purpose }) {
  const look = PURPOSE_LOOKS[purpose];
  return (
    <svg width={18} height={18} viewBox="-9 -9 18 18" aria-hidden>
      <path d={look.shape} fill={`var(--${look.dye})`} />
      <text
        y={3.4}
        textAnchor="middle"
        fontSize={9.5}
        fontWeight={700}
        fill={`var(--${look.on})`}
        fontFamily="'Commissioner Variable', sans-serif"
      >
        {look.letter}
      </text>
    </svg>
  );
}
