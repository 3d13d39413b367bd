/** What the edges of a cue keep to: its words, a mark, or nothing. */
import { Button, NumberInput, Select } from '@mantine/core';
import { useState } from 'react';
import type { Edge } from '@cadence/core/programme/edits/cues/trimCue.ts';
import { marksInOrder } from '@cadence/core/programme/order.ts';
import type { Cue, Programme, Tie } from '@cadence/core/programme/programme.ts';
import { tieEdges, tieOf } from '@cadence/core/programme/ties.ts';
import { add } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { make } from '../../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { openNow, useShown } from '../../desk/store.ts';
import classes from './CuePanel.module.css';

/** The number of marks that are offered, the nearest ones. */
const NEAR = 12;

function said(cue: Cue, edge: Edge): string {
  const tie = tieOf(cue, edge);
  if (!tie) return `${edge} free`;
  const what = tie.to === 'mark' ? 'a mark' : edge === 'start' ? 'the first word' : 'the last word';
  if (tie.frames === 0) return `${edge} at ${what}`;
  const before = edge === 'start' ? tie.frames > 0 : tie.frames < 0;
  return `${edge} ${plural(Math.abs(tie.frames), 'frame')} ${before ? 'before' : 'after'} ${what}`;
}

export function Ties({ cue }: { cue: Cue }) {
  const programme = useShown((shown) => shown);
  const [open, setOpen] = useState(false);
  const marks = Object.keys(programme.marks).length > 0;
  if (cue.words.length === 0 && !marks && !cue.startTie && !cue.endTie) return null;
  if (!open)
    return (
      <button type="button" className={classes.look} onClick={() => setOpen(true)}>
        <span className="quiet">Ties</span>{' '}
        {cue.startTie || cue.endTie ? `${said(cue, 'start')}, ${said(cue, 'end')}` : 'none'}
      </button>
    );
  return (
    <fieldset className={classes.ties}>
      <EdgeTie cue={cue} edge="start" programme={programme} />
      <EdgeTie cue={cue} edge="end" programme={programme} />
      <Button onClick={() => setOpen(false)}>Done</Button>
    </fieldset>
  );
}

interface EdgeTieProps {
  readonly cue: Cue;
  readonly edge: Edge;
  readonly programme: Programme;
}

/** The nearest marks, in order of time. */
const nearMarks = (programme: Programme, cue: Cue, edge: Edge) =>
  [...marksInOrder(programme)]
    .sort((a, b) => Math.abs(a.at - cue[edge]) - Math.abs(b.at - cue[edge]))
    .slice(0, NEAR)
    .sort((a, b) => a.at - b.at);

function EdgeTie({ cue, edge, programme }: EdgeTieProps) {
  const { frameRate, startTimecode } = programme.facts;
  const tie = tieOf(cue, edge);
  const set = (wanted: Parameters<typeof tieEdges>[2][Edge]) =>
    make(tieEdges(openNow().programme, [cue.id], { [edge]: wanted ?? null }));
  const options = [
    { value: 'free', label: 'Nothing' },
    ...(cue.words.length > 0 || tie?.to === 'word'
      ? [{ value: 'word', label: edge === 'start' ? 'First word' : 'Last word' }]
      : []),
    ...nearMarks(programme, cue, edge).map(({ id, at, name }) => ({
      value: id,
      label: `Mark ${name || formatTimecode(add(at, startTimecode), frameRate)}`,
    })),
  ];
  const choose = (value: string | null) => {
    if (value === 'free') set(null);
    else if (value === 'word') set({ to: 'word' });
    else if (value !== null) set({ to: 'mark', mark: value });
  };
  return (
    <>
      <Select
        size="xs"
        label={edge === 'start' ? 'Tie the start to' : 'Tie the end to'}
        data={options}
        value={valueOf(tie)}
        allowDeselect={false}
        onChange={choose}
      />
      <NumberInput
        size="xs"
        w={104}
        label={edge === 'start' ? 'Frames before' : 'Frames after'}
        disabled={!tie}
        min={-1000}
        max={1000}
        value={tie?.frames ?? 0}
        onChange={(count) => {
          if (tie && typeof count === 'number' && count !== tie.frames)
            set({ ...tie, frames: Math.round(count) });
        }}
      />
    </>
  );
}

const valueOf = (tie: Tie | null): string =>
  !tie ? 'free' : tie.to === 'mark' ? tie.mark : 'word';
