/** What texts are now and what they would become, side by side. */
import classes from './windows.module.css';

export interface Compared {
  readonly key: string;
  readonly before: readonly string[];
  readonly after: readonly string[];
}

/** More than these are not shown one by one. */
const MOST_SHOWN = 200;

const Texts = ({ texts }: { texts: readonly string[] }) => (
  <td dir="auto">
    {texts.map((text, at) => (
      <p key={at}>{text}</p>
    ))}
  </td>
);

export function BeforeAfter({ all }: { all: readonly Compared[] }) {
  if (all.length === 0) return null;
  return (
    <div className={`${classes.preview} ${classes.texts}`}>
      <table>
        <thead>
          <tr>
            <th>Here now</th>
            <th>Becomes</th>
          </tr>
        </thead>
        <tbody>
          {all.slice(0, MOST_SHOWN).map(({ key, before, after }) => (
            <tr key={key}>
              <Texts texts={before} />
              <Texts texts={after} />
            </tr>
          ))}
        </tbody>
      </table>
      {all.length > MOST_SHOWN && (
        <p className={classes.more}>and {(all.length - MOST_SHOWN).toLocaleString('en-GB')} more</p>
      )}
    </div>
  );
}
