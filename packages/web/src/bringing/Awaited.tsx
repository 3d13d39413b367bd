/** A sound on its way in, whose speech places the lines of a script: it is waited for, unless the editor goes on. */
import { Button, Loader, Progress } from '@mantine/core';
import type { Arrival } from '../desk/arrivals.ts';
import classes from './BringIn.module.css';

interface AwaitedProps {
  readonly arrival: Arrival;
  readonly goOn: () => void;
}

export const Awaited = ({ arrival: { name, share, message }, goOn }: AwaitedProps) => (
  <div className={classes.reading}>
    <Loader size="sm" color="var(--woad)" />
    <span role="status">
      {message}: {name}. Its speech places these lines.
    </span>
    <span className="spring" />
    <Progress w={120} color="var(--woad)" value={share * 100} aria-label={`Progress of ${name}`} />
    <Button onClick={goOn}>Do not wait</Button>
  </div>
);
