/** The list of cues that did not come along as they were. */
import type { NotAsItWas } from '@cadence/core/programme/broughtAlong.ts';
import { plural } from '../kit/format.ts';
import classes from '../kit/windows.module.css';

const WHY: Readonly<Record<NotAsItWas['why'], string>> = {
  gone: 'cut out; a mark stands there',
  shortened: 'cut short',
  crowded: 'no room left; a mark stands there',
  rough: 'said again: times are rough',
};

const SHOWN = 100;

interface Row {
  readonly key: string;
  readonly at: string;
  readonly text: string;
  readonly why: NotAsItWas['why'];
}

export function NotAsTheyWere({ all }: { all: readonly Row[] }) {
  if (all.length === 0) return null;
  return (
    <div className={classes.preview}>
      <table aria-label="Cues that are not as they were">
        <thead>
          <tr>
            <th>Was at</th>
            <th>Cue</th>
            <th>Now</th>
          </tr>
        </thead>
        <tbody>
          {all.slice(0, SHOWN).map(({ key, at, text, why }) => (
            <tr key={key}>
              <td>{at}</td>
              <td>{text}</td>
              <td>{WHY[why]}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {all.length > SHOWN && (
        <p className={classes.more}>And {plural(all.length - SHOWN, 'cue')} more.</p>
      )}
    </div>
  );
}
