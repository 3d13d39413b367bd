/** Everything that can be done, found by any word of what people call it. */
import { Spotlight, createSpotlight, type SpotlightActionGroupData } from '@mantine/spotlight';
import '@mantine/spotlight/styles.css';
import { useEffect, useMemo } from 'react';
import { useNavigate } from 'react-router';
import { goTo } from '../desk/places.ts';
import { say } from '../desk/say.ts';
import { showWindow } from '../desk/windows.ts';
import { byGroup } from './keys/key.ts';
import { OTHER_WORDS } from './keys/otherWords.ts';
import { KEYS, whyNot } from './keys.ts';
import { hasWords } from './hasWords.ts';

const [commandsStore, commands] = createSpotlight();

interface Command {
  readonly does: string;
  readonly group: string;
  readonly words: string;
  readonly keys?: string;
  readonly why?: string | undefined;
  readonly run: () => void;
}

/** Commands that have no key of their own. */
const WITHOUT_KEY: readonly Omit<Command, 'group'>[] = [
  {
    does: 'Bring in a film, a sound or words',
    words: 'import open load file media video audio music subtitles captions script lyrics',
    run: () => goTo('material'),
  },
  {
    does: 'Find speech in the sound',
    words: 'detect voice silence pieces segments vad',
    run: () => goTo('material'),
  },
  {
    does: 'Find the pulse of a song',
    words: 'detect tempo bpm beats rhythm music',
    run: () => goTo('material'),
  },
  {
    does: 'Type as you listen',
    words: 'transcribe write subtitles captions transcript',
    run: () => goTo('words'),
  },
  {
    does: 'Write caption files',
    words: 'export save deliver srt vtt webvtt ttml stl lrc csv subtitles output download',
    run: () => goTo('handover'),
  },
  {
    does: 'Set up the programme',
    words: 'settings preferences options frame rate fps size length timecode limits project',
    run: () => showWindow('setup'),
  },
  {
    does: 'Edit the dictionary of this programme',
    words: 'spelling words names spell check vocabulary',
    run: () => showWindow('rightWords'),
  },
  {
    does: 'Make marks from timecodes',
    words: 'paste markers list times import',
    run: () => showWindow('pasteMarks'),
  },
  {
    does: 'Bring in a tempo map',
    words: 'midi beats bpm import',
    run: () => showWindow('tempoMap'),
  },
];

function commandsNow(toList: () => void): Command[] {
  const keyed = KEYS.flatMap((key): Command[] =>
    key.run && key.keys !== 'Ctrl K'
      ? [{ ...key, run: key.run, words: OTHER_WORDS[key.keys] ?? '', why: whyNot(key) }]
      : [],
  );
  const more = [
    ...WITHOUT_KEY,
    { does: 'Show all programmes', words: 'list projects home close open', run: toList },
  ];
  return [...keyed, ...more.map((command) => ({ ...command, group: 'Programme' }))];
}

export default function Commands({ close }: { close: () => void }) {
  const navigate = useNavigate();
  useEffect(() => commands.open(), []);
  const groups = useMemo((): SpotlightActionGroupData[] => {
    const all = byGroup(commandsNow(() => void navigate('/')));
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
  }, [navigate]);
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
