/** Sets words, lines or cues onto beats, bar lines, marks or other instants, after showing where each goes. */
import { NumberInput, SegmentedControl, Select } from '@mantine/core';
import { useMemo, useState } from 'react';
import { evenly, ontoInstants, type Each } from '@cadence/core/programme/edits/ontoInstants.ts';
import { heardBeats, heardPieces } from '@cadence/core/programme/heard.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { add, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { make } from '../desk/desk.ts';
import { plural } from '../kit/format.ts';
import { currentStrand, openNow } from '../desk/store.ts';
import { WindowFoot } from '../kit/WindowFoot.tsx';
import classes from '../kit/windows.module.css';
import { player } from '../playback/player.ts';
import { INSTANTS, instantsOf, type InstantsOf } from '../desk/instants.ts';
import { useChosen } from '../kit/useChosen.tsx';

type To = InstantsOf | 'evenly';

const TO: readonly { readonly value: To; readonly label: string }[] = [
  ...INSTANTS,
  { value: 'evenly', label: 'Evenly, by syllables' },
];

const EACH: readonly { readonly value: Each; readonly label: string }[] = [
  { value: 'word', label: 'Each word' },
  { value: 'syllable', label: 'Each syllable' },
  { value: 'line', label: 'Each line' },
  { value: 'cue', label: 'Each cue' },
];

/** The time that some cues have together. */
function timeOf(programme: Programme, ids: readonly Id[]) {
  const cues = ids.flatMap((id) => programme.cues[id] ?? []);
  return {
    start: Math.min(...cues.map(({ start }) => start)) as Ticks,
    end: Math.max(...cues.map(({ end }) => end)) as Ticks,
  };
}

const SHOWN = 200;

export default function OntoBeat({ close }: { close: () => void }) {
  const { programme, ids, choice } = useChosen();
  const { frameRate, startTimecode } = programme.facts;
  const strand = currentStrand(programme);
  const [playhead] = useState(() => player.time);
  const [to, setTo] = useState<To>(() => (heardBeats(programme).length > 0 ? 'beats' : 'evenly'));
  const [each, setEach] = useState<Each>('word');
  const [every, setEvery] = useState(1);
  const [from, setFrom] = useState<'cue' | 'playhead'>('cue');
  const setting = useMemo(() => {
    const time = timeOf(programme, ids);
    const start = from === 'cue' ? time.start : playhead;
    if (to === 'evenly')
      return ontoInstants(programme, strand, ids, evenly(programme, ids, start, time.end), {
        each: 'syllable',
        every: 1,
      });
    const ends = to === 'pieces' ? heardPieces(programme).slice(-1) : [];
    // What is set on the last piece ends with it.
    const all = [...instantsOf(programme, to), ...ends.map(({ end }) => end)];
    const instants = all.filter((at) => at >= start);
    return ontoInstants(programme, strand, ids, instants, { each, every });
  }, [programme, strand, ids, to, each, every, from, playhead]);
  const take = () => {
    if (openNow().programme === programme) make(setting.edit);
    close();
  };
  const count = setting.words.length;
  return (
    <div className={classes.form}>
      <div className={classes.choices}>
        <Select
          size="xs"
          w={170}
          label="Onto"
          data={TO}
          value={to}
          allowDeselect={false}
          onChange={(value) => setTo((value ?? to) as To)}
        />
        {to !== 'evenly' && (
          <>
            <Select
              size="xs"
              w={140}
              label="Set"
              data={EACH}
              value={each}
              allowDeselect={false}
              onChange={(value) => setEach((value ?? each) as Each)}
            />
            <NumberInput
              size="xs"
              w={110}
              label="Takes so many"
              min={1}
              max={64}
              value={every}
              onChange={(value) => typeof value === 'number' && value >= 1 && setEvery(value)}
            />
          </>
        )}
        <SegmentedControl
          size="xs"
          aria-label="From"
          data={[
            { value: 'cue', label: 'From the first cue' },
            { value: 'playhead', label: 'From the playhead' },
          ]}
          value={from}
          onChange={(value) => setFrom(value as 'cue' | 'playhead')}
        />
      </div>
      {choice}
      <p role="status">
        {count === 0
          ? (setting.edit.note ?? 'There is nothing to set them on from here.')
          : `${plural(count, 'word')} would be set${setting.left > 0 ? `; ${plural(setting.left, 'word')} left over` : ''}.`}
      </p>
      {count > 0 && (
        <div className={classes.preview}>
          <table aria-label="Words and where they go">
            <thead>
              <tr>
                <th>Word</th>
                <th>Starts</th>
                <th>Ends</th>
              </tr>
            </thead>
            <tbody>
              {setting.words.slice(0, SHOWN).map(({ text, start, end }, place) => (
                <tr key={place}>
                  <td>{text}</td>
                  <td>{formatTimecode(add(start, startTimecode), frameRate)}</td>
                  <td>{formatTimecode(add(end, startTimecode), frameRate)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {count > SHOWN && (
            <p className={classes.more}>And {plural(count - SHOWN, 'word')} more.</p>
          )}
        </div>
      )}
      <WindowFoot close={close} take={take} off={setting.edit.changes.length === 0}>
        Set {plural(count, 'word')}
      </WindowFoot>
    </div>
  );
}
