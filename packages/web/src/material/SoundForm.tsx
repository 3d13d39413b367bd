/** How a sound is heard in the programme: where it begins, how loud, its fades, or not at all. */
import { Button, Switch } from '@mantine/core';
import { useState } from 'react';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { layWithCues } from '@cadence/core/programme/edits/words/conformCues.ts';
import {
  beginWith,
  hearAlone,
  isAlone,
  LEAST_LEVEL,
  MOST_LEVEL,
  moveSound,
  setSound,
  removeSound,
} from '@cadence/core/programme/edits/programme/sounds.ts';
import { inProgramme, soundOf, soundsHeard } from '@cadence/core/programme/heard.ts';
import { beatsInOrder } from '@cadence/core/programme/order.ts';
import type { Material, Programme, Sound } from '@cadence/core/programme/programme.ts';
import { frames, countFrames } from '@cadence/core/time/frameRate.ts';
import { add, fromSeconds, toSeconds, ZERO } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { make, newId } from '../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { openNow, useShown } from '../desk/store.ts';
import { FigureField } from '../kit/FigureField.tsx';
import classes from './MaterialPlace.module.css';

export function SoundForm({ material }: { material: Material }) {
  const { frameRate, startTimecode, sound: main } = useShown((programme) => programme.facts);
  const sound = useShown((programme) => soundOf(programme, material.id));
  const firstBeat = useShown((programme) => beatsInOrder(programme, material.id)[0]);
  const several = useShown((programme) => soundsHeard(programme).length > 1);
  const alone = useShown((programme) => isAlone(programme, material.id));
  const [along, setAlong] = useState(main === material.id);
  if (!sound) return null;
  const lay = (edit: (programme: Programme) => Edit) => {
    const { programme } = openNow();
    const laying = edit(programme);
    if (!along) return make(laying);
    const { edit: all, notAsTheyWere } = layWithCues(programme, material.id, laying, newId);
    const note = notAsTheyWere.length > 0 && {
      note: `${plural(notAsTheyWere.length, 'cue')} could not keep their length or place. A doubt mark shows each one that is gone.`,
    };
    make({ ...all, ...note });
  };
  const set = (part: Partial<Sound>) =>
    make(setSound(openNow().programme, material.id, part, newId));
  const shift = countFrames(inProgramme(sound, ZERO), frameRate);
  const begin = formatTimecode(add(sound.at, startTimecode), frameRate);
  return (
    <div className={`card ${classes.found}`}>
      <div className="bar">
        <b>In the programme</b>
        <span className="quiet">starts at {begin}</span>
        <span className="spring" />
        <Switch
          size="xs"
          label="Move cues and marks too"
          checked={along}
          onChange={(event) => setAlong(event.currentTarget.checked)}
        />
        <Switch
          size="xs"
          label="Mute"
          checked={sound.muted}
          onChange={(event) => set({ muted: event.currentTarget.checked })}
        />
        {several && (
          <Switch
            size="xs"
            label="Solo"
            checked={alone}
            onChange={() => make(hearAlone(openNow().programme, material.id, newId))}
          />
        )}
        {main !== material.id && (
          <Button onClick={() => make(removeSound(openNow().programme, material.id))}>
            Remove from the sounds
          </Button>
        )}
      </div>
      <div className={classes.settings}>
        <FigureField
          label="Offset, frames"
          value={shift}
          bounds={[-1e6, 1e6]}
          step={1}
          change={(value) =>
            lay((programme) =>
              moveSound(programme, material.id, frames(value - shift, frameRate), newId),
            )
          }
        />
        <FigureField
          label="Level, dB"
          value={sound.level}
          bounds={[LEAST_LEVEL, MOST_LEVEL]}
          step={1}
          change={(level) => set({ level })}
        />
        <FigureField
          label="Fade in, s"
          value={toSeconds(sound.fadeIn)}
          bounds={[0, 60]}
          step={0.1}
          change={(value) => set({ fadeIn: fromSeconds(value) })}
        />
        <FigureField
          label="Fade out, s"
          value={toSeconds(sound.fadeOut)}
          bounds={[0, 60]}
          step={0.1}
          change={(value) => set({ fadeOut: fromSeconds(value) })}
        />
        <span className="spring" />
        {firstBeat && firstBeat.at !== sound.from && (
          <Button
            onClick={() =>
              lay((programme) => beginWith(programme, material.id, firstBeat.at, newId))
            }
          >
            Start at the first beat
          </Button>
        )}
        {sound.from > 0 && (
          <Button
            onClick={() =>
              lay((programme) => setSound(programme, material.id, { from: ZERO, at: ZERO }, newId))
            }
          >
            Restore the whole sound
          </Button>
        )}
      </div>
    </div>
  );
}
