/** How fast a cue must be read, against the limit of the profile. */
import { easeOf, type Reading } from '@cadence/core/pace/reading.ts';
import type { ReadingProfile } from '@cadence/core/pace/profile.ts';
import classes from './ReadingGauge.module.css';

interface Props {
  readonly reading: Reading;
  readonly profile: ReadingProfile;
}

export function ReadingGauge({ reading, profile }: Props) {
  const { charactersASecond: speed } = reading;
  const limit = profile.charactersASecond;
  const share = Math.min(1, speed / (limit * 1.25));
  return (
    <div className={classes.gauge}>
      <span className="quiet">Reading</span>
      <span className={`gauge ${easeOf(speed, limit)} ${classes.track}`} aria-hidden>
        <b style={{ width: `${share * 100}%` }} />
        <i style={{ left: '80%' }} />
      </span>
      <b className={classes.figure}>{speed.toFixed(1)}</b>
      <span className="quiet">characters a second, limit {limit}</span>
    </div>
  );
}

/** The same in a line: a short bar with its figure read out. */
export function SmallGauge({ reading, profile }: Props) {
  const { charactersASecond: speed } = reading;
  const limit = profile.charactersASecond;
  return (
    <span
      className={`gauge ${easeOf(speed, limit)} ${classes.small}`}
      role="img"
      aria-label={`${speed.toFixed(1)} characters a second, limit ${limit}`}
      title={`${speed.toFixed(1)} characters a second, limit ${limit}`}
    >
      <b style={{ width: `${Math.min(1, speed / limit) * 100}%` }} />
    </span>
  );
}
