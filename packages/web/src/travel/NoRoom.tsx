/** Text for which there is no room on the frame, or no letters: said once all of it has been set. */
import { useEffect, useState } from 'react';
import { roomFindings } from '@cadence/core/check/travelling.ts';
import type { Finding } from '@cadence/core/check/finding.ts';
import type { Passage } from '@cadence/core/programme/passage.ts';
import type { Facts } from '@cadence/core/programme/programme.ts';
import { whenIdle } from '../sync/idle.ts';
import { shelf } from '../picture/studio.ts';
import classes from './TravelPlace.module.css';

type Found = Pick<Finding, 'message' | 'figure' | 'unit'>;

/** A figure for what is far out or often so; of one line or letter the text says all. */
const says = ({ message, figure = 0, unit = '' }: Found): string =>
  figure > 1 ? `${message}: ${figure} ${unit}.` : `${message}.`;

/** @param fonts  counts up when letters came, for what has to be measured anew */
export function NoRoom({
  passage,
  facts,
  fonts,
}: {
  passage: Passage;
  facts: Facts;
  fonts: number;
}) {
  const [found, setFound] = useState<readonly Found[]>([]);
  useEffect(() => {
    let stale = false;
    // A long sheet takes a while to set for the first time.
    void whenIdle().then(() => !stale && setFound(roomFindings(passage, facts, shelf)));
    return () => {
      stale = true;
    };
  }, [passage, facts, fonts]);
  return found.map((each) => (
    <p key={each.message} className={classes.unknown} role="status">
      {says(each)}
    </p>
  ));
}
