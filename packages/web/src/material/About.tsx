/** What was found in one material, and how it is heard. */
import { Button } from '@mantine/core';
import { IconAlertTriangle } from '@tabler/icons-react';
import { Suspense, useMemo } from 'react';
import { lazyPart } from '../app/patiently.ts';
import { silenceIn } from '@cadence/core/listen/loudness.ts';
import { dominantTempo } from '@cadence/core/listen/pulse.ts';
import { EVEN, swingOf } from '@cadence/core/listen/swing.ts';
import { setFacts } from '@cadence/core/programme/edits/setFacts.ts';
import { addSound } from '@cadence/core/programme/edits/sounds.ts';
import { inProgramme, soundOf } from '@cadence/core/programme/heard.ts';
import { beatsInOrder, piecesInOrder } from '@cadence/core/programme/order.ts';
import type { Material } from '@cadence/core/programme/programme.ts';
import { lengthOf } from '@cadence/core/time/range.ts';
import { fromSeconds, toSeconds } from '@cadence/core/time/ticks.ts';
import { make, newId } from '../app/edit.ts';
import { formatLevel, plural } from '../app/format.ts';
import { InTurn } from '../app/InTurn.tsx';
import { openNow, store, useShown } from '../app/store.ts';
import { player } from '../playback/player.ts';
import { scrubber } from '../playback/scrub.ts';
import { FindPulseAndHits, FindSpeech } from './FindForms.tsx';
import { useHeard } from './heard.ts';
import { SoundForm } from './SoundForm.tsx';
import { Waveform } from './Waveform.tsx';
import classes from './MaterialPlace.module.css';
import type { KeptHeard } from '@cadence/core/listen/heardFile.ts';

const Plots = lazyPart(() => import('./Plots.tsx'));

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
          ...(material.picture?.shown && { picture: material.id }),
        },
        `Use ${material.name}`,
      ),
    );
  const used = facts.sound === material.id || facts.picture === material.id;
  return (
    <>
      <div className="bar">
        <h2>{material.name}</h2>
        <span className="spring" />
        {material.sound && !heardToo && facts.sound !== null && (
          <Button
            variant="filled"
            onClick={() => make(addSound(openNow().programme, material.id, newId))}
          >
            Hear it too
          </Button>
        )}
        {!used && material.kind !== 'font' && (
          <Button onClick={use}>
            {facts.sound === null ? 'Use in the programme' : 'Make it the main sound'}
          </Button>
        )}
      </div>
      {material.remarks.map((remark) => (
        <p key={remark} className="notice">
          <IconAlertTriangle size={18} /> {remark}
        </p>
      ))}
      {material.sound && (
        <InTurn>
          <Wave material={material} heard={heard} />
          <Figures material={material} sound={material.sound} heard={heard} />
          <FindSpeech material={material} heard={heard} />
          <FindPulseAndHits material={material} heard={heard} />
          <SoundForm material={material} />
          {heard && <PlotsOf material={material} heard={heard} />}
        </InTurn>
      )}
    </>
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
  const beats = useShown((programme) => beatsInOrder(programme, material.id));
  const times = useMemo(() => beats.map(({ at }) => toSeconds(at)), [beats]);
  const tempo = useMemo(() => dominantTempo(times), [times]);
  const swing = useMemo(() => heard && swingOf(heard.pulse, times), [heard, times]);
  const inThrees = beats.some(({ bar }) => bar === '6/8');
  const silence = useMemo(() => heard && silenceIn(heard.level), [heard]);
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
        <dd>{silence === undefined ? '…' : `${Math.round(100 * silence)} % of it`}</dd>
      </div>
      <div>
        <dt>Tempo</dt>
        <dd>
          {tempo === undefined ? 'none' : `${tempo.toFixed(1)} a minute`}
          {swing !== undefined && !inThrees && (
            <small>{swing < EVEN ? 'even halves' : `swung ${swungAs(swing)}`}</small>
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

/** How long the halves of a swung beat are to each other, in hundredths of the beat. */
const swungAs = (swing: number): string =>
  `${Math.round(100 * swing)} to ${Math.round(100 * (1 - swing))}`;

function PlotsOf({ material, heard }: { material: Material; heard: KeptHeard }) {
  const pieces = useShown((programme) => piecesInOrder(programme, material.id));
  const beats = useShown((programme) => beatsInOrder(programme, material.id));
  const duration = toSeconds(material.length);
  return (
    <Suspense fallback={<div className={classes.plots} />}>
      <Plots heard={heard} pieces={pieces} beats={beats} duration={duration} />
    </Suspense>
  );
}
