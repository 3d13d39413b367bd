/** The marks in a table: sorted by what is pressed, typed into, picked and deleted. */
import { ActionIcon, Button, FileButton, Select, TextInput } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconTrash } from '@tabler/icons-react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import { readCuePoints } from '@cadence/core/formats/wav/readCuePoints.ts';
import { addMarks, removeMarks, setMark } from '@cadence/core/programme/edits/found/marks.ts';
import { marksInOrder } from '@cadence/core/programme/order.ts';
import { PURPOSES, type Mark, type Purpose } from '@cadence/core/programme/programme.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { make, newId } from '../../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { hold } from '../../desk/actions.ts';
import { say, messageOf } from '../../desk/say.ts';
import { openNow, useApp, useShown } from '../../desk/store.ts';
import { player } from '../../playback/player.ts';
import { PURPOSE_LOOKS } from '../purposes.ts';
import { PurposeTag } from './PurposeTag.tsx';
import { TimeField } from '../../kit/TimeField.tsx';
import type { WindowProps } from '../../desk/windows.ts';
import classes from '../../kit/windows.module.css';

type Column = 'at' | 'name' | 'purpose';

const compare: Readonly<Record<Column, (a: Mark, b: Mark) => number>> = {
  at: (a, b) => a.at - b.at,
  name: (a, b) => a.name.localeCompare(b.name) || a.at - b.at,
  purpose: (a, b) => a.purpose.localeCompare(b.purpose) || a.at - b.at,
};

const PURPOSE_CHOICES = PURPOSES.map((value) => ({ value, label: PURPOSE_LOOKS[value].name }));

export default function MarksTable({ close, show }: WindowProps) {
  const marks = useShown(marksInOrder);
  const picked = useApp((state) => state.view.picked);
  const [{ by, down }, setOrder] = useState<{ by: Column; down: boolean }>({
    by: 'at',
    down: false,
  });
  const sorted = [...marks].sort((a, b) => (down ? -1 : 1) * compare[by](a, b));
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: sorted.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 40,
    overscan: 6,
  });
  const chosen = marks.filter(({ id }) => picked.includes(id));
  const heading = (column: Column, label: string) => (
    <button
      type="button"
      onClick={() => setOrder({ by: column, down: by === column && !down })}
      aria-label={`Sort by ${label.toLowerCase()}`}
    >
      {label}
      {by === column && (down ? <IconArrowDown size={13} /> : <IconArrowUp size={13} />)}
    </button>
  );
  return (
    <>
      {marks.length === 0 ? (
        <p className="quiet">
          There are no marks yet. Press <kbd className="key">&apos;</kbd> to drop one at the
          playhead, or make them from beats, pieces or hits.
        </p>
      ) : (
        <div className={classes.table}>
          <div className={`${classes.row} ${classes.head}`}>
            {heading('at', 'Time')}
            {heading('purpose', 'For')}
            {heading('name', 'Name')}
            <span />
          </div>
          <div ref={scroller} className={classes.scroll}>
            <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
              {rows.getVirtualItems().map((item) => {
                const mark = sorted[item.index] as Mark;
                return (
                  <div
                    key={mark.id}
                    className={`${classes.row} ${picked.includes(mark.id) ? classes.on : ''}`}
                    style={{ transform: `translateY(${item.start}px)` }}
                  >
                    <TimeField
                      bare
                      label={`Time of mark ${item.index + 1}`}
                      time={mark.at}
                      move={(to) => setMark(openNow().programme, mark.id, { at: to })}
                    />
                    <Select
                      size="xs"
                      aria-label={`What mark ${item.index + 1} is for`}
                      data={PURPOSE_CHOICES}
                      value={mark.purpose}
                      allowDeselect={false}
                      leftSection={<PurposeTag purpose={mark.purpose} />}
                      onChange={(purpose) =>
                        purpose &&
                        make(setMark(openNow().programme, mark.id, { purpose: purpose as Purpose }))
                      }
                    />
                    <NameField mark={mark} label={`Name of mark ${item.index + 1}`} />
                    <span className={classes.buttons}>
                      <Button
                        onClick={() => {
                          hold.setHand('marks');
                          hold.pick(mark.id);
                          player.seek(mark.at);
                          close();
                        }}
                      >
                        Go to mark
                      </Button>
                      <ActionIcon
                        aria-label={`Delete mark ${item.index + 1}`}
                        onClick={() => make(removeMarks(openNow().programme, [mark.id]))}
                      >
                        <IconTrash size={16} stroke={1.6} />
                      </ActionIcon>
                    </span>
                  </div>
                );
              })}
            </div>
          </div>
        </div>
      )}
      <div className={classes.foot}>
        <span className="quiet">{plural(marks.length, 'mark')}</span>
        <span className="spring" />
        {chosen.length > 0 && (
          <Button
            onClick={() =>
              make(
                removeMarks(
                  openNow().programme,
                  chosen.map(({ id }) => id),
                ),
              )
            }
          >
            Delete the {plural(chosen.length, 'picked mark')}
          </Button>
        )}
        <FileButton accept=".wav,audio/wav" onChange={(file) => file && void fromWav(file)}>
          {(props) => <Button {...props}>From a WAV file</Button>}
        </FileButton>
        <Button onClick={() => show('pasteMarks')}>Paste timecodes</Button>
        <Button variant="filled" onClick={() => show('makeMarks')}>
          Make marks
        </Button>
      </div>
    </>
  );
}

function NameField({ mark, label }: { mark: Mark; label: string }) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <TextInput
      size="xs"
      aria-label={label}
      maxLength={500}
      value={typed ?? mark.name}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={() => {
        if (typed !== null) make(setMark(openNow().programme, mark.id, { name: typed }));
        setTyped(null);
      }}
      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
    />
  );
}

/** Reads the cue points of a WAV file as marks of the programme. */
async function fromWav(file: File): Promise<void> {
  try {
    const readAt = async (from: number, to: number) =>
      new Uint8Array(await file.slice(from, to).arrayBuffer());
    const found = await readCuePoints(readAt, file.size);
    if (found.length === 0) {
      say.note(`There are no cue points in ${file.name}.`);
      return;
    }
    const marks = found.map(({ start, text }) => ({
      at: fromSeconds(start),
      name: text,
      purpose: 'place' as const,
    }));
    if (make(addMarks(openNow().programme, marks, newId)))
      say.note(`${plural(found.length, 'cue point')} of ${file.name} taken as marks.`);
  } catch (error) {
    say.problem(`${file.name}: ${messageOf(error)} No mark was changed.`);
  }
}
