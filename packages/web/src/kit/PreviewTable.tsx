/** The first rows of what an edit would come to, and how many more there are. */
import type { ReactNode } from 'react';
import classes from './windows.module.css';

/** More than these are not shown one by one. */
const MOST_SHOWN = 200;

interface PreviewTableProps<T> {
  readonly label?: string;
  readonly head: readonly string[];
  readonly all: readonly T[];
  /** The cells of a row. */
  readonly cells: (item: T, at: number) => ReactNode;
  /** Whether the rows are texts, which keep their lines. */
  readonly texts?: boolean;
}

/** Nothing where there is no row. */
export function PreviewTable<T>({ label, head, all, cells, texts }: PreviewTableProps<T>) {
  if (all.length === 0) return null;
  return (
    <div className={`${classes.preview} ${texts ? classes.texts : ''}`} tabIndex={0}>
      <table aria-label={label}>
        <thead>
          <tr>
            {head.map((title) => (
              <th key={title}>{title}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {all.slice(0, MOST_SHOWN).map((item, at) => (
            <tr key={at}>{cells(item, at)}</tr>
          ))}
        </tbody>
      </table>
      {all.length > MOST_SHOWN && (
        <p className={classes.more}>and {(all.length - MOST_SHOWN).toLocaleString('en-GB')} more</p>
      )}
    </div>
  );
}
