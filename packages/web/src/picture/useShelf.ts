import { useEffect, useState } from 'react';
import type { Line } from '@cadence/core/text/lines.ts';
import type { FontShelf } from '@cadence/paint/fontShelf.ts';
import { loadWithRetry } from '../kit/loadWithRetry.ts';
import { say, messageOf } from '../desk/say.ts';
import { openNow } from '../desk/store.ts';

/** The shelf of fonts, once text can be measured in a family; null until then. */
export function useShelf(family: string, lines: readonly Line[]): FontShelf | null {
  const [ready, setReady] = useState<{ shelf: FontShelf; family: string } | null>(null);
  useEffect(() => {
    let stale = false;
    void loadWithRetry(() => import('./studio.ts'))
      .then(async ({ shelf, stage }) => {
        await stage.ownFonts(openNow().programme);
        const fresh = await shelf.prepare(family, lines);
        if (stale) return;
        setReady((before) => (fresh || before?.family !== family ? { shelf, family } : before));
      })
      .catch((error: unknown) => say.problem(`Text was not measured: ${messageOf(error)}`));
    return () => {
      stale = true;
    };
  }, [family, lines]);
  return ready?.family === family ? ready.shelf : null;
}
