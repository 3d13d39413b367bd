/** Everything that can be done, found by any word of what people call it. */
import { useMantineColorScheme } from '@mantine/core';
import { Spotlight, createSpotlight, type SpotlightActionGroupData } from '@mantine/spotlight';
import '@mantine/spotlight/styles.css';
import { useEffect, useMemo } from 'react';
import { useNavigate } from 'react-router';
import { say } from '../desk/say.ts';
import { byGroup } from './keys/key.ts';
import { keylessCommands, type Command } from './keylessCommands.ts';
import { OTHER_WORDS } from './keys/otherWords.ts';
import { KEYS, whyNot } from './keys.ts';
import { hasWords } from './hasWords.ts';

const [commandsStore, commands] = createSpotlight();

function commandsNow(shown: Pick<Command, 'does' | 'words' | 'run'>[]): Command[] {
  const keyed = KEYS.flatMap((key): Command[] =>
    key.run && key.keys !== 'Ctrl K'
      ? [{ ...key, run: key.run, words: OTHER_WORDS[key.keys] ?? '', why: whyNot(key) }]
      : [],
  );
  return [
    ...keyed,
    ...keylessCommands(),
    ...shown.map((each) => ({ ...each, group: 'Programme' as const })),
  ];
}

export default function Commands({ close }: { close: () => void }) {
  const navigate = useNavigate();
  const { toggleColorScheme } = useMantineColorScheme();
  useEffect(() => commands.open(), []);
  const groups = useMemo((): SpotlightActionGroupData[] => {
    const all = byGroup(
      commandsNow([
        {
          does: 'Show all programmes',
          words: 'list projects home close open',
          run: () => void navigate('/'),
        },
        {
          does: 'Switch between light and night',
          words: 'dark theme mode colours bright',
          run: toggleColorScheme,
        },
      ]),
    );
    return [...all].map(([group, members]) => ({
      group,
      actions: members.map(({ does, keys, words, why, run }) => ({
        id: does,
        label: does,
        keywords: words,
        ...(why !== undefined && { description: why }),
        ...(keys !== undefined && { rightSection: <kbd className="key">{keys}</kbd> }),
        onClick: () => (why === undefined ? run() : say.note(why)),
      })),
    }));
  }, [navigate, toggleColorScheme]);
  return (
    <Spotlight
      store={commandsStore}
      actions={groups}
      shortcut={null}
      yOffset={80}
      overlayProps={{ blur: 0 }}
      attributes={{ content: { 'aria-label': 'Commands' } }}
      scrollable
      maxHeight={460}
      scrollAreaProps={{
        viewportProps: { tabIndex: 0, 'aria-label': 'All commands', role: 'group' },
      }}
      onSpotlightClose={close}
      nothingFound="No command has these words."
      searchProps={{
        placeholder: 'What do you want to do?',
        'aria-label': 'Find a command',
      }}
      filter={(query, actions) =>
        actions.flatMap((each) => {
          if (!('actions' in each)) return [];
          const found = each.actions.filter(({ label = '', keywords = '' }) =>
            hasWords(`${label} ${String(keywords)} ${each.group}`, query),
          );
          return found.length > 0 ? [{ ...each, actions: found }] : [];
        })
      }
    />
  );
}
