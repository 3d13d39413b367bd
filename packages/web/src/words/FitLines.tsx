/**
 * Shows how text would be broken and cues be split to fit the lines of the profile, or the frame at a size, before
 * it is done.
 */
import { Button, SegmentedControl } from '@mantine/core';
import { useMemo, useState } from 'react';
import { fitLines, fitted, roomOfProfile } from '@cadence/core/programme/edits/text/fitLines.ts';
import { setStyle } from '@cadence/core/programme/edits/text/reword.ts';
import { apply } from '@cadence/core/programme/record/apply.ts';
import type { Id, Programme } from '@cadence/core/programme/programme.ts';
import { roomOfFrame, sizeToFit } from '@cadence/core/scene/roomOfFrame.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { make, newId } from '../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { currentStrand, openNow } from '../desk/store.ts';
import { FigureField } from '../kit/FigureField.tsx';
import { EditWindow } from '../kit/EditWindow.tsx';
import { FontSelect } from '../picture/FontSelect.tsx';
import { useShelf } from '../picture/useShelf.ts';
import { BeforeAfter } from '../kit/BeforeAfter.tsx';
import { useChosen } from '../kit/useChosen.tsx';

/** What would be done to those that do not fit. */
function howOf(splits: number, all: number): string {
  if (splits === 0) return 'Line breaks would change.';
  if (splits === all) return `${plural(splits, 'cue')} would be split.`;
  return `${plural(splits, 'cue')} would be split. Line breaks of the others would change.`;
}

type By = 'characters' | 'frame';

export default function FitLines({ close }: { close: () => void }) {
  const { programme, ids, choice } = useChosen();
  const { lines, longestLine } = programme.facts.profile;
  const style = programme.strands[currentStrand(programme)]?.style;
  const [by, setBy] = useState<By>('characters');
  const [family, setFamily] = useState(style?.family ?? '');
  const [size, setSize] = useState(style?.size ?? 54);
  const texts = useMemo(
    () => Object.values(programme.cues).flatMap(({ text }) => text),
    [programme.cues],
  );
  const shelf = useShelf(family, texts);
  // With the size and the font that the strand has, every cue keeps its own.
  const setting = useMemo(
    () => ({
      ...(family !== style?.family && { family }),
      ...(size !== style?.size && { size }),
    }),
    [family, size, style],
  );
  const found = useMemo(() => {
    if (by === 'characters') return fitted(programme, ids, roomOfProfile(programme));
    return shelf && fitted(programme, ids, roomOfFrame(programme, shelf, setting));
  }, [programme, ids, by, shelf, setting]);
  const shrunk = useMemo(
    () => (by === 'frame' && shelf ? sizeToFit(programme, ids, shelf, setting) : undefined),
    [programme, ids, by, shelf, setting],
  );
  const splits = found?.filter(({ parts }) => parts.length > 1).length ?? 0;
  const what =
    by === 'characters'
      ? `${plural(lines, 'line')} of ${longestLine} characters`
      : `${plural(lines, 'line')} in the frame at ${size} px`;
  /** The edit, with the size and the font that were chosen. */
  const edit = (now: Programme) => {
    const room = by === 'frame' && shelf ? roomOfFrame(now, shelf, setting) : roomOfProfile(now);
    const fit = fitLines(now, ids, newId, room);
    return by === 'frame' ? styled(now, fit, ids, setting) : fit;
  };
  const shrink = (to: number) => {
    make({
      ...setStyle(openNow().programme, ids, { ...setting, size: to }),
      name: `Shrink to ${to} px`,
    });
    close();
  };
  return (
    <EditWindow
      close={close}
      choices={
        <>
          <SegmentedControl
            size="xs"
            aria-label="Fit to"
            data={[
              { value: 'characters', label: 'By characters' },
              { value: 'frame', label: 'By the frame' },
            ]}
            value={by}
            onChange={(value) => setBy(value as By)}
          />
          {by === 'frame' && (
            <>
              <FontSelect label="Font" value={family} set={setFamily} />
              <FigureField
                width={96}
                label="Size"
                suffix=" px"
                bounds={[8, 800]}
                value={size}
                change={setSize}
              />
            </>
          )}
        </>
      }
      says={
        <>
          {found === null
            ? 'Measuring …'
            : found.length === 0
              ? `Every cue fits ${what}.`
              : `${plural(found.length, 'cue does', 'cues do')} not fit ${what}. ${howOf(splits, found.length)}`}
          {shrunk !== undefined &&
            found !== null &&
            ` To keep the line breaks, shrink the text to ${shrunk} px.`}
        </>
      }
      edit={edit}
      off={(found?.length ?? 0) === 0}
      does={`Fit ${plural(found?.length ?? 0, 'cue')}`}
      beside={
        shrunk !== undefined && (
          <Button onClick={() => shrink(shrunk)}>Shrink to {shrunk} px</Button>
        )
      }
    >
      {choice}
      <BeforeAfter
        all={(found ?? []).map(({ cue, parts }) => ({
          before: [plainText(cue.text)],
          after: parts.map((part) => plainText(part)),
        }))}
      />
    </EditWindow>
  );
}

/** An edit that fits cues, with another style for them and for what was split off them. */
function styled(
  programme: Programme,
  fit: ReturnType<typeof fitLines>,
  ids: readonly Id[],
  setting: { readonly family?: string; readonly size?: number },
): ReturnType<typeof fitLines> {
  if (Object.keys(setting).length === 0) return fit;
  const made = fit.changes.filter(({ was }) => was === null).map(({ id }) => id);
  const { changes } = setStyle(apply(programme, fit.changes), [...ids, ...made], setting);
  return { ...fit, changes: [...fit.changes, ...changes] };
}
