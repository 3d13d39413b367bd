/** The words that are right in this programme, one a line. */
import { Textarea } from '@mantine/core';
import { useState } from 'react';
import { setRightWords } from '@cadence/core/programme/edits/text/proof.ts';
import { make } from '../desk/desk.ts';
import { openNow } from '../desk/store.ts';
import { WindowFoot } from '../kit/WindowFoot.tsx';
import classes from '../kit/windows.module.css';

export default function RightWords({ close }: { close: () => void }) {
  const [before] = useState(() => (openNow().programme.facts.spelling?.right ?? []).join('\n'));
  const [text, setText] = useState(before);
  const take = () => {
    make(setRightWords(openNow().programme, text.split('\n')));
    close();
  };
  return (
    <div className={classes.form}>
      <Textarea
        aria-label="Dictionary of this programme"
        description="Names, dialect, invented words: one a line. A word in small letters also matches its capitalised form."
        autosize
        minRows={8}
        maxRows={18}
        spellCheck={false}
        data-autofocus
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      <WindowFoot close={close} take={take} off={text === before}>
        Save dictionary
      </WindowFoot>
    </div>
  );
}
