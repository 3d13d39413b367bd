/** Brings in the tempo map of a Standard MIDI file as the pulse of a sound. */
import { Button, FileButton, NumberInput } from '@mantine/core';
import { useState } from 'react';
import { readMidi, type TempoMap } from '@cadence/core/formats/midi/read.ts';
import { setPulse } from '@cadence/core/programme/edits/found/pulse.ts';
import { fromSeconds } from '@cadence/core/time/ticks.ts';
import { make, newId } from '../../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { pulseMaterial } from '../../desk/actions.ts';
import { messageOf } from '../../desk/say.ts';
import { openNow, useShown } from '../../desk/store.ts';
import { WindowFoot } from '../../kit/WindowFoot.tsx';
import classes from '../../kit/windows.module.css';

export default function TempoMapForm({ close }: { close: () => void }) {
  const programme = useShown((shown) => shown);
  const material = pulseMaterial(programme);
  const [map, setMap] = useState<{ name: string; read: TempoMap } | null>(null);
  const [offset, setOffset] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);
  const read = async (file: File) => {
    try {
      setProblem(null);
      setMap({
        name: file.name,
        read: readMidi(new Uint8Array(await file.arrayBuffer())),
      });
    } catch (error) {
      setProblem(`${file.name}: ${messageOf(error)} Nothing was changed.`);
    }
  };
  const length = programme.materials[material ?? '']?.length ?? programme.facts.length;
  const beats = (map?.read.beats ?? [])
    .map(({ at, bar }) => ({ at: fromSeconds(at + offset), bar }))
    .filter(({ at }) => at >= 0 && at <= length);
  if (material === undefined)
    return <p className="quiet">Bring in the sound of this tempo map first.</p>;
  const take = () => {
    make({
      ...setPulse(openNow().programme, material, beats, newId),
      name: 'Bring in a tempo map',
    });
    close();
  };
  return (
    <div className={classes.form}>
      <p className="quiet">
        The beats and bars of the file replace the pulse of {programme.materials[material]?.name}.
        Fixed beats stay.
      </p>
      <div className={classes.choices}>
        <FileButton accept=".mid,.midi,audio/midi" onChange={(file) => file && void read(file)}>
          {(props) => (
            <Button {...props} variant={map ? 'default' : 'filled'}>
              Choose a MIDI file
            </Button>
          )}
        </FileButton>
        <NumberInput
          size="xs"
          w={200}
          label="Start of the file, s"
          step={0.1}
          decimalScale={3}
          min={-3600}
          max={36_000}
          value={offset}
          onChange={(value) => typeof value === 'number' && setOffset(value)}
        />
      </div>
      {problem && <p role="alert">{problem}</p>}
      {map && (
        <p role="status">
          {map.name}: {plural(beats.length, 'beat')} at{' '}
          {map.read.tempo
            .slice(0, 3)
            .map(({ bpm }) => bpm.toFixed(1))
            .join(', ')}
          {map.read.tempo.length > 3 && ' …'} quarters a minute. {map.read.warnings.join(' ')}
        </p>
      )}
      <WindowFoot close={close} take={take} off={beats.length === 0}>
        Bring in {plural(beats.length, 'beat')}
      </WindowFoot>
    </div>
  );
}
