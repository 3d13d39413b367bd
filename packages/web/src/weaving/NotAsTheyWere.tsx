/** The list of cues that did not come along as they were. */
import type { NotAsItWas } from '@cadence/core/programme/woven/broughtAlong.ts';
import { PreviewTable } from '../kit/PreviewTable.tsx';

const WHY: Readonly<Record<NotAsItWas['why'], string>> = {
  gone: 'removed; a doubt mark shows where',
  shortened: 'shortened',
  crowded: 'no room left; a doubt mark shows where',
  rough: 'said again: times are approximate',
};

interface Row {
  readonly at: string;
  readonly text: string;
  readonly why: NotAsItWas['why'];
}

export const NotAsTheyWere = ({ all }: { all: readonly Row[] }) => (
  <PreviewTable
    label="Changed cues"
    head={['Old time', 'Cue', 'Change']}
    all={all}
    cells={({ at, text, why }) => (
      <>
        <td>{at}</td>
        <td>{text}</td>
        <td>{WHY[why]}</td>
      </>
    )}
  />
);
