/** How the selected cues stand together as a group, or that each stands by itself. */
import { STANDING_NAMES } from '@cadence/core/programme/edits/cues/groupCues.ts';
import { STANDING, type Cue, type Standing } from '@cadence/core/programme/programme.ts';
import { act } from '../desk/actions.ts';
import { Choice } from './fields.tsx';
import classes from './PatternsPlace.module.css';

const ALONE = 'alone';

export const GroupForm = ({ cue }: { readonly cue: Cue | undefined }) => (
  <section className={classes.part} aria-label="Group">
    <h3>Group</h3>
    <Choice
      label="Stand together"
      data={[
        { value: ALONE, label: 'Each by itself' },
        ...STANDING.map((value) => ({ value, label: STANDING_NAMES[value] })),
      ]}
      value={cue?.group?.standing ?? ALONE}
      set={(value) => (value === ALONE ? act.ungroup() : act.group(value as Standing))}
    />
    <p className={classes.note}>Each comes by its own time; all go as one.</p>
  </section>
);
