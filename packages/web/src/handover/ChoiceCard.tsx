/** Something that can be written: whether it is, what is to be known of it, and its choices. */
import { Checkbox } from '@mantine/core';
import type { ReactNode } from 'react';
import classes from './HandoverPlace.module.css';

interface CardProps {
  readonly title: string;
  readonly note: string;
  readonly on: boolean;
  readonly toggle: () => void;
  /** Its choices, seen while it is on. */
  readonly children: ReactNode;
}

export function ChoiceCard({ title, note, on, toggle, children }: CardProps) {
  return (
    <div className={`card ${classes.formatCard}`}>
      <label className={classes.format}>
        <Checkbox
          checked={on}
          onChange={toggle}
          color="var(--ink)"
          iconColor="var(--linen)"
          size="xs"
        />
        <span>
          <b>{title}</b>
          <small className="quiet">{note}</small>
        </span>
      </label>
      {on && children && <div className={classes.choices}>{children}</div>}
    </div>
  );
}
