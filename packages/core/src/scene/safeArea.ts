/** Within what part of the frame text and action are safe from being cut off, after those who say so. */

export interface SafeArea {
  readonly name: string;
  /** From each edge, as a share of the frame; the one for text first. */
  readonly insets: readonly { readonly name: string; readonly inset: number }[];
}

export const SAFE_AREAS = [
  {
    name: 'EBU R 95',
    insets: [
      { name: 'Graphics safe', inset: 0.05 },
      { name: 'Action safe', inset: 0.035 },
    ],
  },
  {
    name: 'SMPTE ST 2046-1',
    insets: [
      { name: 'Safe title', inset: 0.05 },
      { name: 'Safe action', inset: 0.035 },
    ],
  },
  {
    name: 'SMPTE RP 27.3, for older sets',
    insets: [
      { name: 'Safe title', inset: 0.1 },
      { name: 'Safe action', inset: 0.05 },
    ],
  },
] as const satisfies readonly SafeArea[];

export const safeAreaOf = (name: string): SafeArea =>
  SAFE_AREAS.find((area) => area.name === name) ?? SAFE_AREAS[0];
