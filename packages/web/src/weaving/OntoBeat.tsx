/** Sets words, lines or cues onto beats, bar lines, marks or other instants, after showing where each goes. */
import { SegmentedControl, Select } from '@mantine/core';
import { useCallback, useEffect, useMemo, useState } from 'react';
import {
  evenly,
  ontoInstants,
  type Each,
  type Setting,
} from '@cadence/core/programme/edits/cues/ontoInstants.ts';
import { languageOfStrand } from '@cadence/core/programme/languageOfStrand.ts';
import { syllablesFor, type Syllables } from '@cadence/core/text/language/syllables.ts';
import { heardBeats, heardPieces } from '@cadence/core/programme/heard.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { add, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { messageOf, say } from '../desk/say.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { loadWithRetry } from '../kit/loadWithRetry.ts';
import { currentStrand } from '../desk/store.ts';
import { FigureField } from '../kit/FigureField.tsx';
import { EditWindow } from '../kit/EditWindow.tsx';
import { PreviewTable } from '../kit/PreviewTable.tsx';
import { player } from '../playback/player.ts';
import { INSTANTS, instantsOf, type InstantsOf } from '@cadence/core/rows/instants.ts';
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

const NOTHING_YET: Setting = { edit: { name: '', changes: [] }, words: [], left: 0 };

/** What parts the words of a strand; undefined until it is loaded. */
function useSyllables(programme: Programme, strand: Id): Syllables | undefined {
  const [found, setFound] = useState<Syllables>();
  useEffect(() => {
    let stale = false;
    loadWithRetry(() => syllablesFor(languageOfStrand(programme, strand))).then(
      (syllables) => !stale && setFound(() => syllables),
      (error: unknown) => say.problem(`Words were not split into syllables: ${messageOf(error)}`),
    );
    return () => {
      stale = true;
    };
  }, [programme, strand]);
  return found;
}

export default function OntoBeat({ close }: { close: () => void }) {
  const { programme, ids, choice } = useChosen();
  const { frameRate, startTimecode } = programme.facts;
  const strand = currentStrand(programme);
  const [playhead] = useState(() => player.time);
  const [to, setTo] = useState<To>(() => (heardBeats(programme).length > 0 ? 'beats' : 'evenly'));
  const [each, setEach] = useState<Each>('word');
  const [every, setEvery] = useState(1);
  const [from, setFrom] = useState<'cue' | 'playhead'>('cue');
  const syllables = useSyllables(programme, strand);
  const settingIn = useCallback(
    (now: Programme): Setting => {
      if (!syllables) return NOTHING_YET;
      const time = timeOf(now, ids);
      const start = from === 'cue' ? time.start : playhead;
      if (to === 'evenly')
        return ontoInstants(now, strand, ids, evenly(now, ids, start, time.end, syllables), {
          each: 'syllable',
          every: 1,
          syllables,
        });
      const ends = to === 'pieces' ? heardPieces(now).slice(-1) : [];
      // What is set on the last piece ends with it.
      const all = [...instantsOf(now, to), ...ends.map(({ end }) => end)];
      const instants = all.filter((at) => at >= start);
      return ontoInstants(now, strand, ids, instants, { each, every, syllables });
    },
    [strand, ids, to, each, every, from, playhead, syllables],
  );
  const setting = useMemo(() => settingIn(programme), [settingIn, programme]);
  const count = setting.words.length;
  return (
    <EditWindow
      close={close}
      choices={
        <>
          <Select
            size="xs"
            w={170}
            label="Target"
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
                label="Unit"
                data={EACH}
                value={each}
                allowDeselect={false}
                onChange={(value) => setEach((value ?? each) as Each)}
              />
              <FigureField
                width={110}
                label="Targets for each"
                bounds={[1, 64]}
                value={every}
                change={setEvery}
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
        </>
      }
      more={choice}
      says={
        !syllables
          ? 'Opening …'
          : count === 0
            ? (setting.edit.note ?? 'There are no targets after this point.')
            : `${plural(count, 'word')} would be set${setting.left > 0 ? `; ${plural(setting.left, 'word')} left over` : ''}.`
      }
      edit={(now) => settingIn(now).edit}
      off={setting.edit.changes.length === 0}
      does={`Set ${plural(count, 'word')}`}
    >
      <PreviewTable
        label="Words and their times"
        head={['Word', 'Start', 'End']}
        all={setting.words}
        cells={({ text, start, end }) => (
          <>
            <td>{text}</td>
            <td>{formatTimecode(add(start, startTimecode), frameRate)}</td>
            <td>{formatTimecode(add(end, startTimecode), frameRate)}</td>
          </>
        )}
      />
    </EditWindow>
  );
}
