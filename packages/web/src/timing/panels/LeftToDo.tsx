/** What is left to do in this programme, each thing one press away; shown while no cue is selected. */
import { Button } from '@mantine/core';
import { useDeferredValue, useMemo } from 'react';
import { plural } from '@cadence/core/text/plural.ts';
import { strandOfWords } from '@cadence/core/programme/captions.ts';
import { whatIsLeft, type Left, type Task } from '@cadence/core/programme/whatIsLeft.ts';
import { act } from '../../desk/actions.ts';
import { goTo } from '../../desk/places.ts';
import { store, useShown, useStrand } from '../../desk/store.ts';
import { tookStrand } from '../../desk/view.ts';
import { showWindow } from '../../desk/windows.ts';
import { useFindings } from '../../proof/useFindings.ts';
import { nextDoubtful, nextUnsure } from '../nextDoubtful.ts';
import classes from './CuePanel.module.css';

interface Step {
  readonly says: (count: number) => string;
  readonly does: string;
  readonly go: () => void;
}

const STEPS: Readonly<Record<Task, Step>> = {
  'make cues': {
    says: (count) => `${plural(count, 'piece')} of speech without a cue`,
    does: 'Make cues from pieces',
    go: act.makeCues,
  },
  type: {
    says: (count) => `${plural(count, 'line')} without text`,
    does: 'Type in Words',
    go: () => goTo('words'),
  },
  weave: {
    says: (count) => `${plural(count, 'cue')} not woven on the sound`,
    does: 'Weave',
    go: () => showWindow('weave'),
  },
  unsure: {
    says: (count) => `${plural(count, 'line')} not placed for sure`,
    does: 'Hear the next, tap',
    go: nextUnsure,
  },
  doubtful: {
    says: (count) => plural(count, 'doubtful word'),
    does: 'Hear the next',
    go: nextDoubtful,
  },
  place: {
    says: (count) => `${plural(count, 'passage')} not on the programme`,
    does: 'Place in Travel',
    go: () => goTo('travel'),
  },
};

export function LeftToDo() {
  const programme = useDeferredValue(useShown((shown) => shown));
  const inHand = useStrand();
  const { id } = useMemo(() => strandOfWords(programme, inHand) ?? inHand, [programme, inHand]);
  const left = useMemo(() => whatIsLeft(programme, id), [programme, id]);
  const findings = useFindings()?.length ?? 0;
  const isDone = left.length === 0 && findings === 0;
  return (
    <ul className={classes.left} aria-label="Left to do">
      {left.map(({ task, count }: Left) => {
        const { says, does, go } = STEPS[task];
        const start = () => {
          if (id !== inHand.id && task !== 'place') store.dispatch(tookStrand(id));
          go();
        };
        return <Item key={task} says={says(count)} does={does} go={start} />;
      })}
      {findings > 0 && (
        <Item
          says={plural(findings, 'finding')}
          does="Check in Handover"
          go={() => goTo('handover')}
        />
      )}
      {isDone && (
        <Item says="Nothing left" does="Write files in Handover" go={() => goTo('handover')} />
      )}
    </ul>
  );
}

const Item = ({ says, does, go }: { says: string; does: string; go: () => void }) => (
  <li>
    <span>{says}</span>
    <Button onClick={go}>{does}</Button>
  </li>
);
