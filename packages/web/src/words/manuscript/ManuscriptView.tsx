/** Words as text: the manuscript with its margins, and a menu for words that may be wrong. */
import { Menu } from '@mantine/core';
import { useEffect, useImperativeHandle, useMemo, useRef, useState, type Ref } from 'react';
import { useNavigate } from 'react-router';
import type { Finding } from '@cadence/core/check/finding.ts';
import { FindingChoices } from '../../proof/FindingMenu.tsx';
import { say } from '../../desk/say.ts';
import { KeyHints } from '../KeyHints.tsx';
import { ManuscriptEditor } from './editor.ts';
import type { Place } from './places.ts';
import classes from './Manuscript.module.css';

export type ManuscriptHandle = Pick<ManuscriptEditor, 'show' | 'mark' | 'focus'>;

interface Props {
  readonly ref: Ref<ManuscriptHandle | null>;
  readonly findings: readonly Finding[];
  readonly find: () => void;
  readonly comment: () => void;
}

/** The findings that are marked in the text. */
const marked = (findings: readonly Finding[]): Finding[] =>
  findings.filter(({ place }) => place !== undefined);

interface OpenMenu {
  readonly finding: Finding;
  readonly x: number;
  readonly y: number;
}

export default function ManuscriptView({ ref, findings, find, comment }: Props) {
  const parent = useRef<HTMLDivElement>(null);
  const [editor, setEditor] = useState<ManuscriptEditor | null>(null);
  const [menu, setMenu] = useState<OpenMenu | null>(null);
  const navigate = useNavigate();
  const words = useMemo(() => marked(findings), [findings]);
  const latest = useRef({ words, find, comment, navigate });
  latest.current = { words, find, comment, navigate };

  useEffect(() => {
    if (!parent.current) return;
    const findingAt = ({ cue, from, to }: Place) =>
      latest.current.words.find(
        ({ cue: of, place }) => of === cue && place && place.from < to && place.to > from,
      );
    const made = new ManuscriptEditor(parent.current, {
      find: () => latest.current.find(),
      comment: () => latest.current.comment(),
      toTiming: () => void latest.current.navigate('../timing'),
      menu: (place, x, y) => {
        const finding = findingAt(place);
        if (finding) setMenu({ finding, x, y });
        return finding !== undefined;
      },
      mendWord: () => {
        made.keep();
        const place = made.wordAtCaret();
        const finding = place && findingAt(place);
        const point = made.caretPoint();
        if (finding && point) setMenu({ finding, ...point });
        else say.note('This word has no findings.');
      },
    });
    setEditor(made);
    made.focus();
    return () => {
      made.close();
      setEditor(null);
    };
  }, []);
  useImperativeHandle(ref, () => editor as ManuscriptHandle, [editor]);
  useEffect(() => {
    editor?.mark(
      'slip',
      words.flatMap(({ cue, place }) => (place ? [{ cue, ...place }] : [])),
    );
  }, [editor, words]);

  return (
    <>
      <div ref={parent} className={classes.manuscript} />
      <div className={classes.foot}>
        <KeyHints
          keys={[
            ['Enter', 'new cue'],
            ['Shift Enter', 'new line'],
            ['Tab', 'play'],
            ['Ctrl .', 'correct the word'],
            ['Alt C', 'comment'],
            ['Esc then ?', 'all keys'],
          ]}
        />
      </div>
      {menu && (
        <Menu
          opened
          position="bottom-start"
          returnFocus={false}
          onChange={(opened) => {
            if (opened) return;
            setMenu(null);
            editor?.focus();
          }}
        >
          <Menu.Target>
            <span className={classes.anchor} style={{ left: menu.x, top: menu.y }} />
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Label>{menu.finding.message}</Menu.Label>
            <FindingChoices finding={menu.finding} />
          </Menu.Dropdown>
        </Menu>
      )}
    </>
  );
}
