/** The ways in which letters can be set, each written as it is. */
import type { Casing } from '@cadence/core/text/language/casing.ts';

export const CASINGS: readonly { readonly value: Casing; readonly label: string }[] = [
  { value: 'sentences', label: 'Sentences' },
  { value: 'words', label: 'First Letters' },
  { value: 'capitals', label: 'CAPITALS' },
  { value: 'small', label: 'small' },
];
