/** The colours of the theme, for what is drawn on canvas. */
import { useComputedColorScheme } from '@mantine/core';
import { useMemo } from 'react';

const NAMES = [
  'linen',
  'flax',
  'thread',
  'sheet',
  'ink',
  'slate',
  'indigo',
  'on-dye',
  'on-weld',
  'madder',
  'woad',
  'weld',
  'alarm',
  'piece',
  'piece-edge',
  'hit',
  'cloth-lyric',
  'cloth-narration',
  'cloth-card',
  'cloth-roll',
  'cloth-crawl',
] as const;

export type Dyes = Readonly<Record<(typeof NAMES)[number], string>> & { readonly dark: boolean };

/** The dyes of the theme that is on; the same object until it changes. */
export function useDyes(): Dyes {
  const scheme = useComputedColorScheme('light');
  return useMemo(() => {
    const style = getComputedStyle(document.documentElement);
    const values = NAMES.map((name) => [name, style.getPropertyValue(`--${name}`).trim()]);
    return { ...Object.fromEntries(values), dark: scheme === 'dark' } as Dyes;
  }, [scheme]);
}
