/** What else can be done about a finding: other words for it, and passing it over. */
import { ActionIcon, Menu } from '@mantine/core';
import { IconDots } from '@tabler/icons-react';
import { useEffect, useState } from 'react';
import { nameEverywhere, nameHere, type Finding } from '@cadence/core/check/finding.ts';
import { passOver, rightEverywhere } from '@cadence/core/programme/edits/text/proof.ts';
import { make } from '../desk/desk.ts';
import { openNow } from '../desk/store.ts';
import { putInstead, suggestionsFor } from './mending.ts';

/** The rows of the menu; suggestions are looked for when it opens. */
export function FindingChoices({ finding }: { finding: Finding }) {
  const [suggestions, setSuggestions] = useState<readonly string[] | null>(null);
  const isWord = finding.kind === 'spelling';
  useEffect(() => {
    let stale = false;
    if (isWord)
      void suggestionsFor(finding).then(
        (found) => !stale && setSuggestions(found),
        () => !stale && setSuggestions([]),
      );
    return () => {
      stale = true;
    };
  }, [finding, isWord]);
  const pass = (name: string) => make(passOver(openNow().programme, name));
  return (
    <>
      {isWord && suggestions === null && <Menu.Label>Looking for suggestions …</Menu.Label>}
      {isWord && suggestions?.length === 0 && <Menu.Label>No suggestions</Menu.Label>}
      {suggestions?.map((word) => (
        <Menu.Item key={word} fw={600} onClick={() => putInstead(finding, word)}>
          {word}
        </Menu.Item>
      ))}
      {isWord && (
        <>
          <Menu.Divider />
          <Menu.Item
            onClick={() => make(rightEverywhere(openNow().programme, finding.subject ?? ''))}
          >
            Add to dictionary
          </Menu.Item>
        </>
      )}
      <Menu.Item onClick={() => pass(nameHere(finding))}>Ignore here</Menu.Item>
      {!isWord && (
        <Menu.Item onClick={() => pass(nameEverywhere(finding))}>
          {finding.subject === undefined ? `Always ignore “${finding.kind}”` : 'Always ignore'}
        </Menu.Item>
      )}
    </>
  );
}

export const FindingMenu = ({ finding }: { finding: Finding }) => (
  <Menu position="bottom-end" withinPortal>
    <Menu.Target>
      <ActionIcon aria-label={`Actions for: ${finding.message}`}>
        <IconDots size={16} stroke={1.7} />
      </ActionIcon>
    </Menu.Target>
    <Menu.Dropdown>
      <FindingChoices finding={finding} />
    </Menu.Dropdown>
  </Menu>
);
