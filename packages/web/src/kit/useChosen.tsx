/** Which cues a window works on: all, or those that are selected. */
import { Switch } from '@mantine/core';
import { useMemo, useState, type ReactNode } from 'react';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { currentCues, openNow, selectionNow } from '../desk/store.ts';

interface Chosen {
  /** As it was when the window opened. */
  readonly programme: Programme;
  readonly ids: readonly Id[];
  /** Lets the editor choose; nothing where nothing is selected. */
  readonly choice: ReactNode;
}

export function useChosen(): Chosen {
  const [programme] = useState(() => openNow().programme);
  const [picked] = useState(() => selectionNow().map(({ id }) => id));
  const [onlyPicked, setOnlyPicked] = useState(picked.length > 1);
  const ids = useMemo(
    () => (onlyPicked ? picked : currentCues(programme).map(({ id }) => id)),
    [onlyPicked, picked, programme],
  );
  const choice = picked.length > 0 && (
    <Switch
      size="xs"
      label={`Only the ${plural(picked.length, 'selected cue')}`}
      checked={onlyPicked}
      onChange={(event) => setOnlyPicked(event.currentTarget.checked)}
    />
  );
  return { programme, ids, choice };
}
