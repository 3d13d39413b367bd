/** What was found in one material, and how it is heard. */
import { Button } from '@mantine/core';
import { IconAlertTriangle } from '@tabler/icons-react';
import { useMemo } from 'react';
import { EVEN } from '@cadence/core/listen/pulse/swing.ts';
import { setBackdrop, setFacts } from '@cadence/core/programme/edits/programme/setFacts.ts';
import { addSound } from '@cadence/core/programme/edits/programme/sounds.ts';
import { inProgramme, soundOf } from '@cadence/core/programme/heard.ts';
import { beatsInOrder, piecesInOrder } from '@cadence/core/programme/order.ts';
import type { Material } from '@cadence/core/programme/programme.ts';
import { lengthOf } from '@cadence/core/time/range.ts';
import { fromSeconds, toSeconds } from '@cadence/core/time/ticks.ts';
import { make, newId } from '../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { formatLevel } from '../kit/format.ts';
import { InTurn } from '../kit/InTurn.tsx';
import { openNow, store, useShown } from '../desk/store.ts';
import { showWindow } from '../desk/windows.ts';
import { player } from '../playback/player.ts';
import { scrubber } from '../playback/scrub.ts';
import type { Figures as FiguresOf } from './curves.ts';
import { FindPulseAndHits, FindSpeech } from './FindForms.tsx';
import { useHeard } from '../listening/heard.ts';
import { Plots, useFigures } from './Plots.tsx';
import { SoundForm } from './SoundForm.tsx';
import { Still } from './Still.tsx';
import { Waveform } from './Waveform.tsx';
import classes from './MaterialPlace.module.css';
import type { KeptHeard } from '@cadence/core/listen/heardFile.ts';

export function About({ material }: { material: Material }) {
  const heard = useHeard(material.sound ? material.hash : undefined);
  const facts = useShown((programme) => programme.facts);
  const heardToo = useShown((programme) => soundOf(programme, material.id) !== undefined);
  const use = () =>
    make(
      setFacts(
        openNow().programme,
        {
          ...(material.sound && { sound: material.id }),
          ...(material.kind === 'film' && material.picture?.shown && { picture: material.id }),
        },
        `Use ${material.name}`,
      ),
    );
  const used = facts.sound === material.id || facts.picture === material.id;
  return (
    <InTurn>
      <div className="bar">
        <h2>{material.name}</h2>
        <span className="spring" />
        {material.sound && !heardToo && facts.sound !== null && (
          <Button
            variant="filled"
            onClick={() => make(addSound(openNow().programme, material.id, newId))}
          >
            Add to the sounds
          </Button>
        )}
        {material.sound && !heardToo && facts.sound !== null && (
          <Button onClick={() => showWindow('carry', material.id)}>
            Carry cues over to this sound
          </Button>
        )}
        {material.kind === 'image' && facts.backdrop.image !== material.id && (
          <Button
            variant="filled"
            onClick={() => make(setBackdrop(openNow().programme, { image: material.id }))}
          >
            Use as background
          </Button>
        )}
        {!used && (material.kind === 'sound' || material.kind === 'film') && (
          <Button onClick={use}>
            {facts.sound === null ? 'Use in the programme' : 'Make this the main sound'}
          </Button>
        )}
      </div>
      {material.remarks.map((remark) => (
        <p key={remark} className="notice">
          <IconAlertTriangle size={18} /> {remark}
        </p>
      ))}
      {material.kind === 'image' && <Still material={material} />}
      {material.sound && <Wave material={material} heard={heard} />}
      {material.sound && <Figures material={material} sound={material.sound} heard={heard} />}
      {material.sound && <FindSpeech material={material} heard={heard} />}
      {material.sound && <FindPulseAndHits material={material} heard={heard} />}
      {material.sound && <SoundForm material={material} />}
      {heard && <PlotsOf material={material} heard={heard} />}
    </InTurn>
  );
}

interface PartProps {
  readonly material: Material;
  readonly heard: KeptHeard | undefined;
}

/** The waveform; a click plays from there, and what is dragged over is heard. */
function Wave({ material, heard }: PartProps) {
  const pieces = useShown((programme) => piecesInOrder(programme, material.id));
  return (
    <div className={`card ${classes.wave}`}>
      <Waveform
        peaks={heard?.peaks}
        duration={toSeconds(material.length)}
        height={116}
        pieces={pieces}
        label={`Waveform of ${material.name}; click to hear`}
        onPick={(at) => {
          const sound = soundOf(openNow().programme, material.id);
          if (!sound) return;
          player.seek(inProgramme(sound, fromSeconds(at)));
          player.play();
        }}
        onHear={(at) => {
          const { programme } = openNow();
          const sound = soundOf(programme, material.id);
          if (!sound || !store.getState().view.scrub) return;
          if (at === null) scrubber.end();
          else scrubber.move(programme, inProgramme(sound, fromSeconds(at)));
        }}
      />
    </div>
  );
}

function Figures({
  material,
  sound,
  heard,
}: PartProps & { sound: NonNullable<Material['sound']> }) {
  const pieces = useShown((programme) => piecesInOrder(programme, material.id));
  const { beats, times } = useBeats(material);
  const figures = useFigures(heard, times);
  const swing = figures?.swing;
  const inThrees = beats.some(({ bar }) => bar === '6/8');
  const spoken = pieces.reduce((sum, piece) => sum + toSeconds(lengthOf(piece)), 0);
  const duration = toSeconds(material.length);
  return (
    <dl className={`card ${classes.figures}`}>
      <div>
        <dt>Loudness</dt>
        <dd>{heard ? formatLevel(heard.level.integratedLufs, 'LUFS') : '…'}</dd>
      </div>
      <div>
        <dt>True peak</dt>
        <dd>{heard ? formatLevel(heard.level.truePeakDb, 'dB') : '…'}</dd>
      </div>
      <div>
        <dt>Speech</dt>
        <dd>{duration > 0 ? Math.round((spoken / duration) * 100) : 0} % of it</dd>
      </div>
      <div>
        <dt>Silence</dt>
        <dd>{figures ? `${Math.round(100 * figures.silence)} % of it` : '…'}</dd>
      </div>
      <div>
        <dt>Tempo</dt>
        <dd>
          {tempoIn(figures)}
          {swing !== undefined && !inThrees && (
            <small>{swing < EVEN ? 'straight' : `swung ${swungAs(swing)}`}</small>
          )}
        </dd>
      </div>
      <div>
        <dt>Sample rate</dt>
        <dd>
          {(sound.sampleRate / 1000).toLocaleString('en-GB')} kHz,{' '}
          {sound.channels === 1 ? 'mono' : plural(sound.channels, 'channel')}
        </dd>
      </div>
    </dl>
  );
}

function tempoIn(figures: FiguresOf | undefined): string {
  if (!figures) return '…';
  return figures.tempo === undefined ? 'none' : `${figures.tempo.toFixed(1)} a minute`;
}

/** How long the halves of a swung beat are to each other, in hundredths of the beat. */
const swungAs = (swing: number): string =>
  `${Math.round(100 * swing)} to ${Math.round(100 * (1 - swing))}`;

function PlotsOf({ material, heard }: { material: Material; heard: KeptHeard }) {
  const pieces = useShown((programme) => piecesInOrder(programme, material.id));
  const { times } = useBeats(material);
  return (
    <Plots heard={heard} pieces={pieces} times={times} duration={toSeconds(material.length)} />
  );
}

/** The beats of a material, and when they are, in seconds. */
function useBeats(material: Material) {
  const beats = useShown((programme) => beatsInOrder(programme, material.id));
  const times = useMemo(() => beats.map(({ at }) => toSeconds(at)), [beats]);
  return { beats, times };
}
