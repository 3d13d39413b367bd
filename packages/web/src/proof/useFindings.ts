import { useDeferredValue, useEffect, useEffectEvent, useMemo, useState } from 'react';
import type { Finding } from '@cadence/core/check/finding.ts';
import { flashFindings } from '@cadence/core/check/flashes.ts';
import { fittingOf, inOrder } from '@cadence/core/check/findings.ts';
import type { Passage } from '@cadence/core/programme/passage.ts';
import type { Cue, Programme, Strand } from '@cadence/core/programme/programme.ts';
import { loadWithRetry } from '../kit/loadWithRetry.ts';
import { whenIdle } from '../sync/idle.ts';
import { say, messageOf } from '../desk/say.ts';
import { useOpen } from '../desk/store.ts';
import { findingsNow } from './proofWorker.ts';

/** The number of cues laid out at once, so that the page is never blocked. */
const AT_ONCE = 40;

/** How the text of a cue fits, in the style and the frame that it was measured in. */
interface Fit {
  readonly strand: Strand | undefined;
  readonly passage: Passage | undefined;
  readonly frame: Programme['facts']['frame'];
  readonly found: readonly Finding[];
}

/** What was measured, as long as the fonts are those it was measured with. */
let measured = new WeakMap<Cue, Fit>();

/**
 * How the text of every cue fits the frame and the fonts; undefined where it became stale. Only what was not
 * measured yet is laid out, a few cues at a time.
 */
async function fittings(
  programme: Programme,
  stale: () => boolean,
): Promise<readonly Finding[] | undefined> {
  const { shelf, stage } = await loadWithRetry(() => import('../picture/studio.ts'));
  const { strands, facts, passages } = programme;
  const cues = Object.values(programme.cues);
  const isNew = (cue: Cue): boolean => {
    const fit = measured.get(cue);
    return (
      fit?.frame !== facts.frame ||
      fit.strand !== strands[cue.strand] ||
      fit.passage !== passages[cue.passage ?? '']
    );
  };
  let fresh = cues.filter(isNew);
  if (await stage.fonts(programme, fresh)) {
    measured = new WeakMap();
    fresh = cues;
  }
  for (let at = 0; at < fresh.length; at += AT_ONCE) {
    if (at > 0) await whenIdle(100);
    if (stale()) return undefined;
    for (const cue of fresh.slice(at, at + AT_ONCE))
      measured.set(cue, {
        strand: strands[cue.strand],
        passage: passages[cue.passage ?? ''],
        frame: facts.frame,
        found: fittingOf(programme, cue, shelf),
      });
  }
  return cues.flatMap((cue) => measured.get(cue)?.found ?? []);
}

/**
 * Everything found in the programme, when it rests: what is measured and proof-read in a worker, and how text fits
 * the frame once the fonts are there. Null until the first has come.
 */
export function useFindings(): readonly Finding[] | null {
  const programme = useDeferredValue(useOpen((open) => open.programme));
  const { facts, strands, cues, materials, passages } = programme;
  // They hang on what is heard, which does not go to the worker.
  const flashing = useMemo(() => flashFindings(programme), [programme]);
  const [read, setRead] = useState<readonly Finding[] | null>(null);
  const [fitted, setFitted] = useState<readonly Finding[]>([]);
  const look = useEffectEvent((stale: () => boolean) => {
    findingsNow(programme).then(
      (found) => !stale() && setRead(found),
      (error: unknown) =>
        !stale() && say.problem(`The text was not proof-read: ${messageOf(error)}`),
    );
    fittings(programme, stale).then(
      (found) => found && !stale() && setFitted(found),
      (error: unknown) => say.problem(`Text was not measured: ${messageOf(error)}`),
    );
  });
  // What else the programme has does not count for its text.
  useEffect(() => {
    let stale = false;
    look(() => stale);
    return () => {
      stale = true;
    };
  }, [facts, strands, cues, materials, passages]);
  return useMemo(
    () =>
      read &&
      inOrder(
        programme,
        [...read, ...fitted, ...flashing].filter(({ cue }) => cues[cue] !== undefined),
      ),
    [programme, cues, read, fitted, flashing],
  );
}
