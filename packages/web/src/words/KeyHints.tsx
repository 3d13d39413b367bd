/** The keys that are at hand, in a row at the foot of the text. */
import { Fragment, type ReactNode } from 'react';
import classes from './WordsPlace.module.css';

interface Props {
  /** Each with what it does. */
  readonly keys: readonly (readonly [key: string, does: string])[];
  readonly children?: ReactNode;
}

export const KeyHints = ({ keys, children }: Props) => (
  <div className={classes.keys}>
    {keys.map(([key, does]) => (
      <span key={key}>
        {key.split(' then ').map((part, at) => (
          <Fragment key={part}>
            {at > 0 && 'then '}
            <kbd className={`key ${classes.key}`}>{part}</kbd>
          </Fragment>
        ))}
        {does}
      </span>
    ))}
    {children}
  </div>
);
