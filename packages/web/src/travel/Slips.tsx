/** What may be wrong in the text of a sheet, and what can be done about each. */
import { plural } from '@cadence/core/text/plural.ts';
import { Button, Popover } from '@mantine/core';
import { useEffect, useState } from 'react';
import type { SheetSlip } from '@cadence/core/check/sheetSlips.ts';
import { languageOf, rightEverywhere } from '@cadence/core/programme/edits/text/proof.ts';
import type { Passage } from '@cadence/core/programme/passage.ts';
import { make } from '../desk/desk.ts';
import { say, messageOf } from '../desk/say.ts';
import { openNow, useOpen } from '../desk/store.ts';
import { proofWorker } from '../proof/proofWorker.ts';
import classes from './Slips.module.css';
import list from './SortedList.module.css';

/** The slips in the sheet of a passage as it is kept, found when it rests. */
export function useSlips({ sheet, separator = null }: Passage): readonly SheetSlip[] {
  const spelling = useOpen((open) => open.programme.facts.spelling);
  const [slips, setSlips] = useState<readonly SheetSlip[]>([]);
  useEffect(() => {
    let stale = false;
    const timer = setTimeout(() => {
      proofWorker()
        .sheet({ text: sheet, separator }, languageOf(openNow().programme), spelling?.right ?? [])
        .then(
          (found) => !stale && setSlips(found),
          (error: unknown) =>
            !stale && say.problem(`The sheet was not proof-read: ${messageOf(error)}`),
        );
    }, 400);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [sheet, separator, spelling]);
  return slips;
}

interface Props {
  readonly slips: readonly SheetSlip[];
  /** Goes to a slip in the sheet. */
  readonly go: (slip: SheetSlip) => void;
  /** Puts what would mend a slip in its place. */
  readonly mend: (slip: SheetSlip) => void;
}

export function Slips({ slips, go, mend }: Props) {
  const [opened, setOpened] = useState(false);
  if (slips.length === 0) return null;
  return (
    <Popover opened={opened} onChange={setOpened} position="top-end" width={380} trapFocus>
      <Popover.Target>
        <Button className={classes.slips} onClick={() => setOpened(!opened)}>
          {plural(slips.length, 'finding')}
        </Button>
      </Popover.Target>
      <Popover.Dropdown p={0}>
        <ul className={list.sorted} aria-label="Findings">
          {slips.slice(0, 100).map((slip, at) => (
            <li key={`${slip.line} ${slip.kind} ${at}`}>
              <span className={classes.says}>{slip.message}</span>
              <span className="spring" />
              {slip.mend !== undefined && <Button onClick={() => mend(slip)}>Fix</Button>}
              {slip.kind === 'spelling' && (
                <Button onClick={() => make(rightEverywhere(openNow().programme, slip.text))}>
                  Add to dictionary
                </Button>
              )}
              <Button
                onClick={() => {
                  setOpened(false);
                  go(slip);
                }}
              >
                Go to line
              </Button>
            </li>
          ))}
        </ul>
      </Popover.Dropdown>
    </Popover>
  );
}
