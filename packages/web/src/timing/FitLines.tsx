/** Shows how text would be broken and cues be split to fit the lines of the profile, before it is done. */
import { useMemo, useState } from 'react';
import { Switch } from '@mantine/core';
import { fitLines, fitted } from '@cadence/core/programme/edits/fitLines.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { make, newId } from '../app/edit.ts';
import { plural } from '../app/format.ts';
import { currentCues, openNow, selectionNow } from '../app/store.ts';
import { WindowFoot } from './WindowFoot.tsx';
import classes from './windows.module.css';

/** What would be done to those that do not fit. */
function howOf(splits: number, all: number): string {
  if (splits === 0) return 'The lines would be broken anew.';
  if (splits === all) return `${plural(splits, 'cue')} would be split.`;
  return `${plural(splits, 'cue')} would be split, the lines of the others broken anew.`;
}

/** More than these are not shown one by one. */
const MOST_SHOWN = 200;

export default function FitLines({ close }: { close: () => void }) {
  const [programme] = useState(() => openNow().programme);
  const [picked] = useState(() => selectionNow().map(({ id }) => id));
  const [onlyPicked, setOnlyPicked] = useState(picked.length > 1);
  const { lines, longestLine } = programme.facts.profile;
  const ids = useMemo(
    () => (onlyPicked ? picked : currentCues(programme).map(({ id }) => id)),
    [onlyPicked, picked, programme],
  );
  const found = useMemo(() => fitted(programme, ids), [programme, ids]);
  const splits = found.filter(({ parts }) => parts.length > 1).length;
  const take = () => {
    make(fitLines(openNow().programme, ids, newId));
    close();
  };
  return (
    <div className={classes.form}>
      <p role="status">
        {found.length === 0
          ? `Every cue fits ${plural(lines, 'line')} of ${longestLine} characters.`
          : `${plural(found.length, 'cue')} ${found.length === 1 ? 'does' : 'do'} not fit ${plural(lines, 'line')} of ${longestLine} characters. ${howOf(splits, found.length)}`}
      </p>
      {picked.length > 0 && (
        <Switch
          size="xs"
          label={`Only the ${plural(picked.length, 'cue')} that ${picked.length === 1 ? 'is' : 'are'} selected`}
          checked={onlyPicked}
          onChange={(event) => setOnlyPicked(event.currentTarget.checked)}
        />
      )}
      {found.length > 0 && (
        <div className={`${classes.preview} ${classes.texts}`}>
          <table>
            <thead>
              <tr>
                <th>Here now</th>
                <th>Becomes</th>
              </tr>
            </thead>
            <tbody>
              {found.slice(0, MOST_SHOWN).map(({ cue, parts }) => (
                <tr key={cue.id}>
                  <td dir="auto">{plainText(cue.text)}</td>
                  <td dir="auto">
                    {parts.map((text, at) => (
                      <p key={at}>{plainText(text)}</p>
                    ))}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <WindowFoot close={close} take={take} off={found.length === 0}>
        Fit {plural(found.length, 'cue')}
      </WindowFoot>
    </div>
  );
}
