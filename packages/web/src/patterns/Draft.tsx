/** The draft of a cue: each part of its text as a thread, with a slope where it comes and one where it goes. */
import { Button } from '@mantine/core';
import { styleOf } from '@cadence/core/programme/patterns.ts';
import type { Movement } from '@cadence/core/movement/movement.ts';
import type { Cue, Programme } from '@cadence/core/programme/programme.ts';
import type { Edit } from '@cadence/core/programme/record/change.ts';
import { layOut } from '@cadence/core/scene/layout.ts';
import { draftOf } from '@cadence/core/scene/movingText.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { shelf } from '../picture/studio.ts';
import { MOST, Threads } from './Threads.tsx';
import { WaveOfCue } from './WaveOfCue.tsx';
import classes from './PatternsPlace.module.css';

interface Props {
  readonly programme: Programme;
  readonly cue: Cue;
  readonly movement: Movement;
  readonly nudge: (by: number) => void;
  /** The edit that gives the cue, or its pattern, a part of a movement; undefined where it has none of its own. */
  readonly change: ((part: Partial<Movement>) => Edit) | undefined;
}

export function Draft({ programme, cue, movement, nudge, change }: Props) {
  const { frame } = programme.facts;
  const layout = layOut(cue.text, styleOf(programme, cue), frame, shelf);
  const draft = draftOf(programme, cue, movement, layout, shelf);
  const { comes, threads } = draft;
  const notes = [
    threads.shortened > 0 &&
      `${plural(threads.shortened, 'part has', 'parts have')} less time than the movement takes.`,
    threads.without > 0 &&
      `${plural(threads.without, 'part has no time of its own, and is', 'parts have no time of their own, and are')} spread.`,
    comes.units.length > MOST && `${comes.units.length - MOST} more are not drawn.`,
  ].filter((note) => note !== false);
  return (
    <section className={classes.draft} aria-label="Draft">
      <div className={classes.head}>
        <h2>Draft</h2>
        <span className="quiet">
          {comes.by === 'whole' ? 'all of it is one thread' : `each ${comes.by} is a thread`}: drag
          it, or its slopes
        </span>
        <span className="spring" />
        <Button disabled={!movement.comesIn} onClick={() => nudge(1)}>
          A frame earlier <kbd className="key">Alt ,</kbd>
        </Button>
        <Button disabled={!movement.comesIn} onClick={() => nudge(-1)}>
          A frame later <kbd className="key">Alt .</kbd>
        </Button>
      </div>
      <div className={classes.threads}>
        <WaveOfCue cue={cue} />
        <Threads key={cue.id} {...{ programme, cue, movement, draft, change }} />
      </div>
      {notes.length > 0 && <p className={classes.note}>{notes.join(' ')}</p>}
    </section>
  );
}
