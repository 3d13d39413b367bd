/** Everything that can be done, found by any word of what people call it. */
import { useMantineColorScheme } from '@mantine/core';
import {
  Spotlight,
  createSpotlight,
  type SpotlightActionData,
  type SpotlightActionGroupData,
} from '@mantine/spotlight';
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

/** What has all words of a query: what is called so first, then what is also called so. */
function found(all: readonly (SpotlightActionGroupData | SpotlightActionData)[], query: string) {
  const groups = all.flatMap((each) => {
    if (!('actions' in each)) return [];
    const isCalled = ({ label = '' }: SpotlightActionData) => hasWords(label, query);
    const having = each.actions.filter((action) =>
      hasWords(`${action.label} ${String(action.keywords)} ${each.group}`, query),
    );
    const called = having.filter(isCalled);
    const also = having.filter((action) => !isCalled(action));
    return having.length > 0
      ? [{ ...each, actions: [...called, ...also], isFirst: called.length > 0 }]
      : [];
  });
  return [...groups.filter(({ isFirst }) => isFirst), ...groups.filter(({ isFirst }) => !isFirst)];
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
      filter={(query, actions) => found(actions, query)}
    />
  );
}
