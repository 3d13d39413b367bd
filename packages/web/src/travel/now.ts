/** The passage in hand, and whether its fonts are there. */
import { useEffect, useState } from 'react';
import { cueOf } from '@cadence/core/programme/edits/programme/passages.ts';
import type { Passage } from '@cadence/core/programme/passage.ts';
import type { Cue } from '@cadence/core/programme/programme.ts';
import { say, messageOf } from '../desk/say.ts';
import { openNow, store, useApp, useOpen, useShown } from '../desk/store.ts';
import { passageInHand } from '../desk/passageInHand.ts';
import { stage } from '../picture/studio.ts';

/** The passage in hand as it is kept. */
export const passageNow = (): Passage | undefined =>
  passageInHand(openNow().programme, store.getState().view);

/** The passage in hand as it is shown, with the cue that puts it on the programme. */
export function usePassage(): { passage: Passage | undefined; cue: Cue | undefined } {
  const programme = useShown((shown) => shown);
  const wanted = useApp((state) => state.view.passage);
  const passage = passageInHand(programme, { passage: wanted });
  return { passage, cue: passage && cueOf(programme, passage.id) };
}

/** The same as it is kept, whatever is tried out meanwhile. */
export function useKeptPassage(): ReturnType<typeof usePassage> {
  const programme = useOpen((open) => open.programme);
  const wanted = useApp((state) => state.view.passage);
  const passage = passageInHand(programme, { passage: wanted });
  return { passage, cue: passage && cueOf(programme, passage.id) };
}

/** Counts up whenever fonts for a passage came, for what has to be measured and drawn anew; 0 until they are there. */
export function useFonts(passage: Passage | undefined): number {
  const [fonts, setFonts] = useState(0);
  useEffect(() => {
    if (!passage) return;
    let stale = false;
    stage.passage(openNow().programme, passage).then(
      (fresh) => !stale && setFonts((count) => (fresh || count === 0 ? count + 1 : count)),
      (error: unknown) => say.problem(`A font was not loaded: ${messageOf(error)}`),
    );
    return () => {
      stale = true;
    };
  }, [passage]);
  return fonts;
}
