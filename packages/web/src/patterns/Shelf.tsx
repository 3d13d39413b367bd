/** The shelf: every pattern, moving on the editor's own words. */
import { Button, Menu } from '@mantine/core';
import { IconChevronDown } from '@tabler/icons-react';
import { useState } from 'react';
import type { Cue, Id, Pattern } from '@cadence/core/programme/programme.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { useShown } from '../desk/store.ts';
import { wearersOf } from './inHand.ts';
import { patternActions } from './patternActions.ts';
import { Preview } from './Preview.tsx';
import classes from './PatternsPlace.module.css';

interface Props {
  readonly patterns: readonly Pattern[];
  readonly pattern: Pattern;
  readonly cue: Cue | undefined;
  readonly fonts: number;
  readonly choose: (id: Id) => void;
}

const BY: Readonly<Record<string, string>> = {
  letter: 'letters',
  syllable: 'syllables',
  word: 'words',
  line: 'lines',
  whole: 'whole',
};

export function Shelf({ patterns, pattern, cue, fonts, choose }: Props) {
  const programme = useShown((shown) => shown);
  const [looked, setLooked] = useState<Id | null>(null);
  const counts = wearersOf(programme);
  return (
    <>
      <div className={classes.head}>
        <h2>Patterns</h2>
        <span className="spring" />
        <Menu position="bottom-end" width={260}>
          <Menu.Target>
            <Button rightSection={<IconChevronDown size={14} />}>New</Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => choose(patternActions.copy(pattern))}>
              Duplicate “{pattern.name}”
            </Menu.Item>
            <Menu.Item disabled={!cue} onClick={() => cue && choose(patternActions.ofCue(cue))}>
              Make a pattern of this cue
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
      </div>
      <ul className={classes.shelf} aria-label="Patterns">
        {patterns.map((each) => {
          const count = counts.get(each.id) ?? 0;
          const { comesIn } = each.movement;
          return (
            <li key={each.id}>
              <button
                type="button"
                className={classes.card}
                aria-pressed={each.id === pattern.id}
                title={each.note ?? undefined}
                onClick={() => choose(each.id)}
                onMouseEnter={() => setLooked(each.id)}
                onMouseLeave={() => setLooked(null)}
                onFocus={() => setLooked(each.id)}
                onBlur={() => setLooked(null)}
              >
                {cue && (
                  <Preview
                    programme={programme}
                    pattern={each}
                    cue={cue}
                    fonts={fonts}
                    playing={looked === each.id}
                  />
                )}
                <span className={classes.named}>
                  <b>{each.name}</b>
                  <span className="quiet">
                    {count > 0 ? plural(count, 'cue') : comesIn ? BY[comesIn.by] : 'still'}
                  </span>
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
