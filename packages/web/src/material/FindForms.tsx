/** Finding again with other settings: what it would change is shown at once, and kept as one step. */
import { Button, Chip } from '@mantine/core';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { LEAST_RISE } from '@cadence/core/listen/hits/hits.ts';
import { countHits, hitsIn, type KeptHeard } from '@cadence/core/listen/heardFile.ts';
import { DRUMS, type Drum } from '@cadence/core/listen/pulse/drums.ts';
import type { FoundStroke } from '@cadence/core/listen/pulse/strokes.ts';
import { DEFAULT_SPEECH } from '@cadence/core/listen/speech/speech.ts';
import { setHits } from '@cadence/core/programme/edits/found/hits.ts';
import { beatsOf, hitsOf, hitsOfStrokes } from '@cadence/core/programme/edits/found/keepFound.ts';
import { setPieces } from '@cadence/core/programme/edits/found/pieces.ts';
import { setPulse, setSong } from '@cadence/core/programme/edits/found/pulse.ts';
import { beatsInOrder, hitsInOrder, piecesInOrder } from '@cadence/core/programme/order.ts';
import type { Material } from '@cadence/core/programme/programme.ts';
import { act, hold } from '../desk/actions.ts';
import { make, newId } from '../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { say } from '../desk/say.ts';
import { currentCues, openNow, useShown } from '../desk/store.ts';
import { DRUM_NAMES } from '../kit/drumNames.ts';
import { FigureField } from '../kit/FigureField.tsx';
import { listeningWorker } from '../listening/heard.ts';
import { SpeechFields, usePieces } from '../listening/speechSettings.tsx';
import classes from './MaterialPlace.module.css';

interface FormProps {
  readonly material: Material;
  readonly heard: KeptHeard | undefined;
}

export function FindSpeech({ material, heard }: FormProps) {
  const [settings, setSettings] = useState(DEFAULT_SPEECH);
  const count = useShown((programme) => piecesInOrder(programme, material.id).length);
  const found = usePieces(heard, settings);
  const cues = useShown((programme) => currentCues(programme).length);
  const inUse = useShown(({ facts }) => facts.sound === material.id);
  const navigate = useNavigate();
  const find = () => {
    if (found) make(setPieces(openNow().programme, material.id, found, newId));
  };
  const goOn = () => {
    if (cues === 0) act.makeCues();
    void navigate('../words');
  };
  return (
    <div className={`card ${classes.found}`}>
      <div>
        <b>{count > 0 ? `${plural(count, 'piece')} of speech` : 'No speech found'}</b>{' '}
        <span className="quiet" role="status">
          {found && found.length !== count
            ? `With these settings it would be ${plural(found.length, 'piece')}.`
            : 'Nothing would change with these settings.'}
        </span>
      </div>
      <div className={classes.settings}>
        <SpeechFields settings={settings} change={setSettings} />
        <span className="spring" />
        <Button onClick={find} disabled={!found}>
          Find speech
        </Button>
        {inUse && count > 0 && (
          <Button variant="filled" onClick={goOn}>
            {cues === 0 ? 'Make cues and type' : 'Type as you listen'}
          </Button>
        )}
      </div>
    </div>
  );
}

/** The drums that are heard in music: what is struck of those that are chosen becomes hits. */
function Drums({ material, heard }: FormProps) {
  const [strokes, setStrokes] = useState<readonly FoundStroke[] | undefined>(undefined);
  const [wanted, setWanted] = useState<readonly string[]>(['kick', 'snare']);
  useEffect(() => {
    let wantedStill = true;
    setStrokes(undefined);
    if (heard)
      void listeningWorker()
        .strokes(heard.pulse)
        .then((found) => wantedStill && setStrokes(found));
    return () => {
      wantedStill = false;
    };
  }, [heard]);
  const count = (drum: Drum) => strokes?.filter((stroke) => stroke.drum === drum).length ?? 0;
  const there = DRUMS.filter((drum) => count(drum) > 0);
  const chosen = there.filter((drum) => wanted.includes(drum));
  if (there.length === 0) return null;
  const find = () => {
    const found = hitsOfStrokes(strokes ?? [], chosen);
    make(setHits(openNow().programme, material.id, found, newId));
  };
  return (
    <div className={classes.settings}>
      <b id="drums">Drums</b>
      <Chip.Group multiple value={[...wanted]} onChange={setWanted}>
        <div role="group" aria-labelledby="drums" className={classes.drums}>
          {there.map((drum) => (
            <Chip key={drum} size="xs" value={drum}>
              {plural(count(drum), DRUM_NAMES[drum])}
            </Chip>
          ))}
        </div>
      </Chip.Group>
      <span className="spring" />
      <Button disabled={chosen.length === 0} onClick={find}>
        Take them as hits
      </Button>
    </div>
  );
}

export function FindPulseAndHits({ material, heard }: FormProps) {
  const beats = useShown((programme) => beatsInOrder(programme, material.id));
  const hits = useShown((programme) => hitsInOrder(programme, material.id));
  const [rise, setRise] = useState(LEAST_RISE);
  const [looking, setLooking] = useState(false);
  const navigate = useNavigate();
  const clear = useMemo(() => (heard ? countHits(heard.hitFigures, rise) : 0), [heard, rise]);
  const bars = beats.filter(({ bar }) => bar !== null).length;
  const findPulse = async () => {
    if (!heard) return;
    setLooking(true);
    const { pulse, level } = heard;
    const found = await listeningWorker().pulse({ pulse, level });
    setLooking(false);
    if (found.pulse.metre === null) {
      say.note('There is no steady pulse in this sound. You can tap one.');
      return;
    }
    const { programme } = openNow();
    const edit = setPulse(programme, material.id, beatsOf(found.pulse), newId);
    const song = setSong(programme, material.id, found.song);
    make({ ...edit, changes: [...edit.changes, ...song] });
  };
  const findHits = () => {
    if (!heard) return;
    const found = hitsOf(hitsIn(heard.hitFigures, rise));
    make(setHits(openNow().programme, material.id, found, newId));
  };
  const show = (hand: 'beats' | 'hits') => {
    hold.setHand(hand);
    void navigate('../timing');
  };
  return (
    <div className={`card ${classes.found}`}>
      <div className={classes.settings}>
        <div>
          <b>
            {beats.length > 0
              ? `${plural(beats.length, 'beat')} in ${plural(bars, 'bar')}`
              : 'No steady pulse'}
          </b>
        </div>
        <span className="spring" />
        <Button loading={looking} disabled={!heard} onClick={() => void findPulse()}>
          Find the pulse
        </Button>
        {beats.length > 0 && <Button onClick={() => show('beats')}>Show the beats</Button>}
      </div>
      <div className={classes.settings}>
        <div>
          <b>{hits.length > 0 ? plural(hits.length, 'hit') : 'No hits'}</b>{' '}
          <span className="quiet" role="status">
            {clear !== hits.length && `${clear} above the threshold.`}
          </span>
        </div>
        <FigureField
          label="Threshold, dB"
          value={rise}
          bounds={[LEAST_RISE, 60]}
          step={1}
          change={setRise}
        />
        <span className="spring" />
        <Button disabled={!heard} onClick={findHits}>
          Find hits
        </Button>
        {hits.length > 0 && <Button onClick={() => show('hits')}>Show the hits</Button>}
      </div>
      {beats.length > 0 && <Drums material={material} heard={heard} />}
    </div>
  );
}
