/** Makes marks from beats, pieces of speech or hits. */
import { NumberInput, Radio, Switch } from '@mantine/core';
import { useState } from 'react';
import { addMarks, type MarkAt } from '@cadence/core/programme/edits/found/marks.ts';
import {
  heardBeats,
  heardHits,
  heardPieces,
  heardSections,
} from '@cadence/core/programme/heard.ts';
import {
  drumsOf,
  type Hit,
  type Programme,
  type Section,
} from '@cadence/core/programme/programme.ts';
import { contains } from '@cadence/core/time/range.ts';
import { make, newId } from '../../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { pickedStretch } from '../../desk/actions.ts';
import { openNow, useShown } from '../../desk/store.ts';
import { sectionName } from '../sectionName.ts';
import { WindowFoot } from '../../kit/WindowFoot.tsx';
import classes from '../../kit/windows.module.css';

const SOURCES = {
  beats: 'Every beat',
  second: 'Every second beat',
  bars: 'Every bar line',
  some: 'The first beat of every few bars',
  starts: 'The start of every piece of speech',
  ends: 'The end of every piece of speech',
  hits: 'Every hit',
  sections: 'Every section of the song',
  choruses: 'Every chorus',
  kicks: 'Every kick',
  snares: 'Every snare',
} as const;
type Source = keyof typeof SOURCES;

const marksOnHits = (hits: readonly Hit[]): MarkAt[] =>
  hits.map(({ start }) => ({ at: start, purpose: 'hit' }));

const marksOnSections = (sections: readonly Section[]): MarkAt[] =>
  sections.map((section) => ({ at: section.start, purpose: 'place', name: sectionName(section) }));

function marksFrom(programme: Programme, source: Source, bars: number): MarkAt[] {
  const beats = heardBeats(programme);
  const lines = beats.filter(({ bar }) => bar !== null);
  const first = beats.findIndex(({ bar }) => bar !== null);
  switch (source) {
    case 'beats':
      return beats.map(({ at }) => ({ at, purpose: 'beat' }));
    case 'second':
      return beats
        .filter((_, at) => (at - Math.max(0, first)) % 2 === 0)
        .map(({ at }) => ({ at, purpose: 'beat' }));
    case 'bars':
      return lines.map(({ at }, place) => ({ at, purpose: 'bar', name: String(place + 1) }));
    case 'some':
      return lines.flatMap(({ at }, place) =>
        place % bars === 0 ? [{ at, purpose: 'bar' as const, name: String(place + 1) }] : [],
      );
    case 'starts':
      return heardPieces(programme).map(({ start }) => ({ at: start, purpose: 'speech' }));
    case 'ends':
      return heardPieces(programme).map(({ end }) => ({ at: end, purpose: 'speech' }));
    case 'hits':
      return marksOnHits(heardHits(programme));
    case 'sections':
      return marksOnSections(heardSections(programme));
    case 'choruses':
      return marksOnSections(heardSections(programme).filter(({ kind }) => kind === 'chorus'));
    case 'kicks':
      return marksOnHits(heardHits(programme).filter((hit) => drumsOf(hit).includes('kick')));
    case 'snares':
      return marksOnHits(heardHits(programme).filter((hit) => drumsOf(hit).includes('snare')));
  }
}

export default function MakeMarks({ close }: { close: () => void }) {
  const programme = useShown((shown) => shown);
  const [source, setSource] = useState<Source>('bars');
  const [bars, setBars] = useState(4);
  const [inside, setInside] = useState(false);
  const [stretch] = useState(pickedStretch);
  const marks = marksFrom(programme, source, bars).filter(
    ({ at }) => !inside || !stretch || contains(stretch, at),
  );
  return (
    <form
      className={classes.form}
      onSubmit={(event) => {
        event.preventDefault();
        make(addMarks(openNow().programme, marks, newId));
        close();
      }}
    >
      <Radio.Group label="Marks on" value={source} onChange={(value) => setSource(value as Source)}>
        {Object.entries(SOURCES).map(([value, label]) => (
          <Radio key={value} value={value} label={label} mt={10} size="xs" />
        ))}
      </Radio.Group>
      {source === 'some' && (
        <NumberInput
          size="xs"
          w={160}
          label="Bars between marks"
          min={1}
          max={64}
          value={bars}
          onChange={(value) => typeof value === 'number' && value >= 1 && setBars(value)}
        />
      )}
      {stretch && (
        <Switch
          size="xs"
          label="Only in the picked stretch"
          checked={inside}
          onChange={(event) => setInside(event.currentTarget.checked)}
        />
      )}
      <WindowFoot
        close={close}
        off={marks.length === 0}
        says={marks.length === 0 && 'The programme has none of these.'}
      >
        Make {plural(marks.length, 'mark')}
      </WindowFoot>
    </form>
  );
}
