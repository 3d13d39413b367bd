/** The list of keys, with a search; those of the place that one is in come first. */
import { TextInput } from '@mantine/core';
import { modals } from '@mantine/modals';
import { useState } from 'react';
import { isIn, type PlaceName } from '../desk/places.ts';
import { hasWords } from './hasWords.ts';
import classes from './KeysHelp.module.css';
import { byGroup, type KeyGroup, type ListedKey } from './keys/key.ts';
import { OTHER_WORDS } from './keys/otherWords.ts';

/** The groups that belong to a place above all. */
const OF_PLACE: Readonly<Partial<Record<PlaceName, readonly KeyGroup[]>>> = {
  words: ['While typing in Words', 'In Words as text'],
  timing: ['Cues, or what is in hand', 'Marks and taps', 'The pulse', 'Rows and view'],
  travel: ['Travel', 'On a sheet in Travel'],
  handover: ['In Handover'],
};

/** The keys by group, those of the place first. */
function grouped(keys: readonly ListedKey[]): [KeyGroup, ListedKey[]][] {
  const place = (Object.keys(OF_PLACE) as PlaceName[]).find(isIn);
  const first = (place && OF_PLACE[place]) ?? [];
  const groups = [...byGroup(keys)];
  const isFirst = ([group]: [KeyGroup, unknown]) => first.includes(group);
  return [...groups.filter(isFirst), ...groups.filter((each) => !isFirst(each))];
}

const Strokes = ({ keys }: { keys: string }) => {
  const parts = keys.startsWith('Page') ? [keys] : keys.split(' ');
  return parts.map((part) => (
    <kbd key={part} className="key">
      {part}
    </kbd>
  ));
};

function KeysHelp({ keys }: { keys: readonly ListedKey[] }) {
  const [query, setQuery] = useState('');
  const found = keys.filter(({ keys: stroke, does, group }) =>
    hasWords(`${stroke} ${does} ${group} ${OTHER_WORDS[stroke] ?? ''}`, query),
  );
  return (
    <>
      <TextInput
        className={classes.search ?? ''}
        aria-label="Search keys"
        placeholder="Search"
        value={query}
        data-autofocus
        onChange={(event) => setQuery(event.currentTarget.value)}
      />
      {found.length === 0 && <p role="status">No key has these words.</p>}
      <div className={classes.groups}>
        {grouped(found).map(([group, members]) => (
          <section key={group}>
            <h3>{group}</h3>
            <dl>
              {members.map((key) => (
                <div key={key.keys + key.does}>
                  <dt>
                    <Strokes keys={key.keys} />
                  </dt>
                  <dd>{key.does}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </>
  );
}

export function openHelp(keys: readonly ListedKey[]): void {
  modals.open({ modalId: 'keys', title: 'Keys', size: 980, children: <KeysHelp keys={keys} /> });
}
