/** Finding again with other settings: what it would change is shown at once, and kept as one step. */
import { Button } from '@mantine/core';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { LEAST_RISE } from '@cadence/core/listen/hits.ts';
import { hitsIn, type KeptHeard } from '@cadence/core/listen/heardFile.ts';
import { DEFAULT_SPEECH, type SpeechSettings } from '@cadence/core/listen/speech.ts';
import { setHits } from '@cadence/core/programme/edits/hits.ts';
import { beatsOf, hitsOf } from '@cadence/core/programme/edits/keepFound.ts';
import { setPieces } from '@cadence/core/programme/edits/pieces.ts';
import { setPulse } from '@cadence/core/programme/edits/pulse.ts';
import { materialTime } from '@cadence/core/programme/heard.ts';
import { beatsInOrder, hitsInOrder, piecesInOrder } from '@cadence/core/programme/order.ts';
import type { Material } from '@cadence/core/programme/programme.ts';
import type { Range } from '@cadence/core/time/range.ts';
import type { Ticks } from '@cadence/core/time/ticks.ts';
import { act } from '../app/actions.ts';
import { make, newId } from '../app/edit.ts';
import { plural } from '../app/format.ts';
import { hold, pickedStretch } from '../app/handActions.ts';
import { say } from '../app/say.ts';
import { currentCues, openNow, useApp, useShown } from '../app/store.ts';
import { FigureField } from './FigureField.tsx';
import { inListening } from './heard.ts';
import classes from './MaterialPlace.module.css';

interface FormProps {
  readonly material: Material;
  readonly heard: KeptHeard | undefined;
}

/** What finding speech with these settings gives; undefined until it is there. */
function usePieces(
  heard: KeptHeard | undefined,
  settings: SpeechSettings,
): readonly Range[] | undefined {
  const [found, setFound] = useState<readonly Range[]>();
  useEffect(() => {
    if (!heard) return;
    let stale = false;
    void inListening()
      .find(heard.speech, settings)
      .then((pieces) => !stale && setFound(pieces));
    return () => {
      stale = true;
    };
  }, [heard, settings]);
  return found;
}

export function FindSpeech({ material, heard }: FormProps) {
  const [settings, setSettings] = useState(DEFAULT_SPEECH);
  const count = useShown((programme) => piecesInOrder(programme, material.id).length);
  const found = usePieces(heard, settings);
  const cues = useShown((programme) => currentCues(programme).length);
  const inUse = useShown(({ facts }) => facts.sound === material.id);
  const hand = useApp((state) => state.view.hand);
  const navigate = useNavigate();
  const stretch = hand === 'pieces' ? pickedStretch() : undefined;
  const find = (inside?: Range) => {
    const { programme } = openNow();
    const there = (time: Ticks) => materialTime(programme, material.id, time);
    const part = inside && { start: there(inside.start), end: there(inside.end) };
    if (found) make(setPieces(programme, material.id, found, newId, part));
  };
  const goOn = () => {
    if (cues === 0) act.makeCues();
    void navigate('../words');
  };
  const set = (part: Partial<SpeechSettings>) => setSettings({ ...settings, ...part });
  return (
    <div className={`card ${classes.found}`}>
      <div>
        <b>{count > 0 ? `${plural(count, 'piece')} of speech` : 'No speech found'}</b>{' '}
        <span className="quiet" role="status">
          {found && found.length !== count
            ? `With these settings it would be ${plural(found.length, 'piece')}.`
            : 'These settings find just these.'}
        </span>
      </div>
      <div className={classes.settings}>
        <FigureField
          label="Shortest pause, s"
          value={settings.shortestPause}
          bounds={[0.05, 5]}
          step={0.05}
          change={(shortestPause) => set({ shortestPause })}
        />
        <FigureField
          label="Shortest piece, s"
          value={settings.shortestPiece}
          bounds={[0.02, 5]}
          step={0.05}
          change={(shortestPiece) => set({ shortestPiece })}
        />
        <FigureField
          label="How strict, %"
          value={Math.round(settings.strictness * 100)}
          bounds={[5, 95]}
          step={5}
          change={(share) => set({ strictness: share / 100 })}
        />
        <span className="spring" />
        {stretch && (
          <Button onClick={() => find(stretch)} disabled={!found}>
            Find in the picked stretch
          </Button>
        )}
        <Button onClick={() => find()} disabled={!found}>
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

export function FindPulseAndHits({ material, heard }: FormProps) {
  const beats = useShown((programme) => beatsInOrder(programme, material.id));
  const hits = useShown((programme) => hitsInOrder(programme, material.id));
  const [rise, setRise] = useState(LEAST_RISE);
  const [looking, setLooking] = useState(false);
  const navigate = useNavigate();
  const clear = useMemo(() => (heard ? hitsIn(heard.hitFigures, rise) : []), [heard, rise]);
  const bars = beats.filter(({ bar }) => bar !== null).length;
  const findPulse = async () => {
    if (!heard) return;
    setLooking(true);
    const found = await inListening().pulse(heard.pulse);
    setLooking(false);
    if (found.metre === null) say.note('There is no steady pulse in this sound. You can tap one.');
    else make(setPulse(openNow().programme, material.id, beatsOf(found), newId));
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
          <b>{hits.length > 0 ? plural(hits.length, 'hit') : 'No hits kept'}</b>{' '}
          <span className="quiet" role="status">
            {clear.length !== hits.length && `${clear.length} stand out so far.`}
          </span>
        </div>
        <FigureField
          label="Must rise by, dB"
          value={rise}
          bounds={[LEAST_RISE, 60]}
          step={1}
          change={setRise}
        />
        <span className="spring" />
        <Button
          disabled={!heard}
          onClick={() => make(setHits(openNow().programme, material.id, hitsOf(clear), newId))}
        >
          Find hits
        </Button>
        {hits.length > 0 && <Button onClick={() => show('hits')}>Show the hits</Button>}
      </div>
    </div>
  );
}
