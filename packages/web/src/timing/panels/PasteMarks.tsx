/** Marks from timecodes that were copied as text. */
import { Textarea } from '@mantine/core';
import { useState } from 'react';
import { readTimecodes } from '@cadence/core/formats/timecodes/read.ts';
import { addMarks } from '@cadence/core/programme/edits/found/marks.ts';
import { make, newId } from '../../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { messageOf } from '../../desk/say.ts';
import { openNow, useShown } from '../../desk/store.ts';
import { WindowFoot } from '../../kit/WindowFoot.tsx';
import classes from '../../kit/windows.module.css';

export default function PasteMarks({ close }: { close: () => void }) {
  const { frameRate, startTimecode } = useShown((programme) => programme.facts);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const found = read();
  function read() {
    try {
      return text.trim() === '' ? null : readTimecodes(text, frameRate, startTimecode);
    } catch {
      return null;
    }
  }
  const take = () => {
    try {
      const { lines } = readTimecodes(text, frameRate, startTimecode);
      const marks = lines.map(({ at, name }) => ({ at, name, purpose: 'place' as const }));
      make(addMarks(openNow().programme, marks, newId));
      close();
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  return (
    <div className={classes.form}>
      <Textarea
        data-autofocus
        label="One timecode a line; a name may follow"
        placeholder={'10:00:04:12 first oar\n10:00:09:00 the chain'}
        autosize
        minRows={8}
        maxRows={16}
        value={text}
        error={problem}
        onChange={(event) => {
          setText(event.currentTarget.value);
          setProblem(null);
        }}
      />
      {found?.warnings.slice(0, 3).map((warning) => (
        <p key={warning.line} className="quiet">
          {warning.message}
        </p>
      ))}
      <WindowFoot close={close} take={take} off={text.trim() === ''}>
        {found ? `Make ${plural(found.lines.length, 'mark')}` : 'Make marks'}
      </WindowFoot>
    </div>
  );
}
