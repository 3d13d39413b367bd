/** The shelf: every pattern, moving on the editor's own words. */
import { Button, FileButton, Menu } from '@mantine/core';
import { useRovingIndex } from '@mantine/hooks';
import { IconChevronDown } from '@tabler/icons-react';
import { useState } from 'react';
import type { Cue, Id, Pattern } from '@cadence/core/programme/programme.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { bringInPatterns } from '../bringing/patternFiles.ts';
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
  // One stop for Tab, at the card that was reached last; arrow keys go from card to card.
  const [reached, setReached] = useState<Id | null>(null);
  const there = patterns.findIndex(({ id }) => id === reached);
  const roving = useRovingIndex({
    total: patterns.length,
    orientation: 'vertical',
    loop: false,
    focusedIndex: there < 0 ? patterns.findIndex(({ id }) => id === pattern.id) : there,
    onFocusChange: (at) => setReached(patterns[at]?.id ?? null),
  });
  const own = Object.values(programme.patterns);
  const read = async (file: File) => {
    const [first] = bringInPatterns(await file.text(), file.name);
    if (first !== undefined) choose(first);
  };
  return (
    <>
      <div className={classes.head}>
        <h2>Patterns</h2>
        <span className="spring" />
        <FileButton accept=".json,application/json" onChange={(file) => file && void read(file)}>
          {(props) => (
            <Menu position="bottom-end" width={280}>
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
                <Menu.Divider />
                <Menu.Item onClick={props.onClick}>Bring in from a file</Menu.Item>
                <Menu.Item
                  disabled={own.length === 0}
                  onClick={() => patternActions.writeFile(own, `${programme.facts.title} patterns`)}
                >
                  Write {own.length > 0 ? `the ${plural(own.length, 'pattern')}` : 'the patterns'}{' '}
                  of this programme
                </Menu.Item>
              </Menu.Dropdown>
            </Menu>
          )}
        </FileButton>
      </div>
      <ul className={classes.shelf} aria-label="Patterns">
        {patterns.map((each, at) => {
          const count = counts.get(each.id) ?? 0;
          const { comesIn } = each.movement;
          return (
            <li key={each.id}>
              <button
                type="button"
                className={classes.card}
                aria-pressed={each.id === pattern.id}
                title={`${each.note ?? each.name}. Click twice to apply it to what is selected.`}
                {...roving.getItemProps({ index: at, onClick: () => choose(each.id) })}
                onDoubleClick={() => patternActions.toSelected(each)}
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
