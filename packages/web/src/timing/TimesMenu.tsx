/** What can be done with the times of cues and words, by name: each has its key. */
import { Button, Menu } from '@mantine/core';
import { IconChevronDown } from '@tabler/icons-react';
import { act } from '../desk/actions.ts';
import { showWindow } from '../desk/windows.ts';
import classes from './TimesMenu.module.css';
import { acceptDoubtful, playDoubtful } from '../weaving/weaving.ts';
import { nextDoubtful, nextUnsure } from './nextDoubtful.ts';

const ITEMS: readonly (readonly (readonly [label: string, keys: string, does: () => void])[])[] = [
  [
    ['Weave words on the sound …', 'Z', () => showWindow('weave')],
    ['Hear the next line not placed for sure, and tap it', 'Alt ;', nextUnsure],
    ['Go to the next doubtful word', 'Shift Z', nextDoubtful],
    ['Play the doubtful words', 'Alt D', playDoubtful],
    ['Accept doubtful words of the selection', 'Shift V', acceptDoubtful],
    ['Weave report …', 'Alt Z', () => showWindow('woven')],
  ],
  [
    ['Set words on beats, marks or evenly …', 'Alt B', () => showWindow('ontoBeat')],
    ['Pull starts to beats or marks …', 'Shift Q', () => showWindow('pull')],
    ['End with the voice', 'Alt V', act.trimToVoice],
  ],
  [
    ['Stretch to start at the playhead', 'Shift [', () => act.stretch('start')],
    ['Stretch to end at the playhead', 'Shift ]', () => act.stretch('end')],
    ['Close small gaps', 'G', act.closeGaps],
    ['Hold each cue until the next', 'Shift G', act.holdCues],
    ['Hold each cue until its sentence ends', 'Alt G', act.holdSentence],
  ],
  [
    ['Group them, to stand together and go as one', 'Alt Shift G', () => act.group('below')],
    ['Take out of the group', '', act.ungroup],
  ],
  [
    ['Tie to words, or untie', 'Alt T', act.tieOrFree],
    ['Select everything from here on', 'Shift End', () => act.selectFromHere('end')],
    ['Select everything up to here', 'Shift Home', () => act.selectFromHere('start')],
    ['Cut cues …', 'Shift C', () => showWindow('cutCues')],
    ['Cues changed by carrying over …', '', () => showWindow('carried')],
  ],
];

export const TimesMenu = () => (
  <Menu position="bottom-end" width={720}>
    <Menu.Target>
      <Button rightSection={<IconChevronDown size={14} />}>Times</Button>
    </Menu.Target>
    <Menu.Dropdown className={classes.columns}>
      {ITEMS.map((group, at) => (
        <div key={at} role="none" className={classes.group}>
          {group.map(([label, keys, does]) => (
            <Menu.Item
              key={label}
              onClick={does}
              rightSection={keys && <kbd className="key">{keys}</kbd>}
            >
              {label}
            </Menu.Item>
          ))}
        </div>
      ))}
    </Menu.Dropdown>
  </Menu>
);
