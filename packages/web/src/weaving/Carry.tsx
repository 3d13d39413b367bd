/** Puts a new recording, or a new cut, in the place of a sound: cues go where what they belong to is now. */
import { Select } from '@mantine/core';
import { useMemo, useState } from 'react';
import { conformCues } from '@cadence/core/programme/edits/words/conformCues.ts';
import type { Carried } from '@cadence/core/conform/carrying.ts';
import { setFacts } from '@cadence/core/programme/edits/programme/setFacts.ts';
import { newSound, soundsHeard } from '@cadence/core/programme/heard.ts';
import { make, newId } from '../desk/desk.ts';
import { openNow } from '../desk/store.ts';
import type { WindowProps } from '../desk/windows.ts';
import { CloseFoot } from '../kit/WindowFoot.tsx';
import classes from '../kit/windows.module.css';
import { keepCarried, Told, toldOf } from './Carried.tsx';
import { useRun } from './useRun.tsx';
import { compare } from './weaving.ts';

export default function Carry({ close, show, about }: WindowProps) {
  const [programme] = useState(() => openNow().programme);
  const heard = soundsHeard(programme).map(({ material }) => material);
  const sounds = Object.values(programme.materials).filter(({ sound }) => sound !== null);
  const [from, setFrom] = useState(heard.find((id) => id !== about) ?? '');
  const [to, setTo] = useState(about ?? newSound(programme, from) ?? '');
  const [old, fresh] = [programme.materials[from], programme.materials[to]];
  const run = useRun<readonly Carried[]>();
  const map = run.found;
  const told = useMemo(
    () => map && conformCues(programme, from, to, map, newId),
    [programme, from, to, map],
  );
  const optionsOf = (ids: readonly string[], without: string) =>
    ids
      .filter((id) => id !== without)
      .map((id) => ({ value: id, label: programme.materials[id]?.name ?? id }));
  if (!old || !fresh || old === fresh)
    return (
      <div className={classes.form}>
        <p role="status">There is no other sound. Bring the new one in first, in Material.</p>
        <CloseFoot close={close} />
      </div>
    );
  const another = map?.length === 0;
  const take = () => {
    const now = openNow().programme;
    if (another) {
      make(setFacts(now, { sound: to }, `Use ${fresh.name}`));
      show('weave');
      return;
    }
    if (!map) {
      void run.begin((tell) => compare(old, fresh, tell));
      return;
    }
    const made = conformCues(now, from, to, map, newId);
    make(made.edit);
    keepCarried(now, made);
    close();
  };
  const choose = (set: (id: string) => void) => (id: string | null) => {
    if (id !== null) set(id);
    run.again();
  };
  return (
    <div className={classes.form}>
      <div className={classes.choices}>
        <Select
          size="xs"
          w={300}
          label="Old sound"
          data={optionsOf(heard, to)}
          value={from}
          allowDeselect={false}
          disabled={run.running}
          onChange={choose(setFrom)}
        />
        <Select
          size="xs"
          w={300}
          label="New sound"
          data={optionsOf(
            sounds.map(({ id }) => id),
            from,
          )}
          value={to}
          allowDeselect={false}
          disabled={run.running}
          onChange={choose(setTo)}
        />
      </div>
      {run.state ||
        (told && !another ? (
          <Told {...toldOf(programme, told)} />
        ) : (
          <p role="status" className={another ? undefined : 'quiet'}>
            {another
              ? 'These are two different recordings. Cues stay where they are. Weave their words on the new sound.'
              : 'The sounds are compared to find what was cut, moved or said again. Cues and marks move with it.'}
          </p>
        ))}
      {run.foot({
        close,
        take,
        children: another
          ? 'Use the new sound and weave'
          : map
            ? 'Carry cues over'
            : 'Compare the sounds',
      })}
    </div>
  );
}
