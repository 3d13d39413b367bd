/** What is in hand besides cues: what is picked of it, its times, and what can be done with it. */
import { Button, Select, TextInput } from '@mantine/core';
import { useMemo, useState, type ReactNode } from 'react';
import { METRES, type Metre } from '@cadence/core/listen/pulse/metre.ts';
import { setMark } from '@cadence/core/programme/edits/found/marks.ts';
import { metreAt, sureOfBars } from '@cadence/core/programme/edits/found/pulse.ts';
import { beatsInOrder } from '@cadence/core/programme/order.ts';
import {
  PURPOSES,
  type Mark,
  type Programme,
  type Purpose,
} from '@cadence/core/programme/programme.ts';
import { add, subtract, toSeconds, ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { make } from '../../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { hold, pulseMaterial } from '../../desk/actions.ts';
import { openNow, useApp, useShown } from '../../desk/store.ts';
import { PURPOSE_LOOKS } from '../purposes.ts';
import { PurposeTag } from './PurposeTag.tsx';
import { NAMES, thingsOf, type Hand, type Thing } from '@cadence/core/rows/things.ts';
import { DRUM_NAMES } from '../../kit/drumNames.ts';
import { TimeField } from '../../kit/TimeField.tsx';
import { showWindow } from '../../desk/windows.ts';
import classes from './CuePanel.module.css';

type OtherHand = Exclude<Hand, 'cues'>;

interface Shown {
  readonly things: readonly Thing[];
  readonly count: number;
}

export function HandPanel({ hand }: { hand: OtherHand }) {
  const programme = useShown((shown) => shown);
  const picked = useApp((state) => state.view.picked);
  const all = thingsOf(programme, hand);
  const chosen = new Set(picked);
  const things = all.filter(({ id }) => chosen.has(id));
  const heading =
    things.length === 0
      ? `${plural(all.length, NAMES[hand].one)}, none picked`
      : things.length > 1
        ? `${plural(things.length, NAMES[hand].one)} picked`
        : `${NAMES[hand].one[0]?.toUpperCase()}${NAMES[hand].one.slice(1)} ${all.indexOf(things[0] as Thing) + 1} of ${all.length}`;
  const shown: Shown = { things, count: all.length };
  return (
    <section className={`card ${classes.panel}`} aria-label={`${NAMES[hand].many} in hand`}>
      <h2 className={classes.heading}>{heading}</h2>
      {hand === 'marks' && <Marks {...shown} />}
      {hand === 'beats' && <Beats {...shown} programme={programme} />}
      {hand === 'pieces' && <Pieces {...shown} />}
      {hand === 'hits' && <Hits {...shown} programme={programme} />}
    </section>
  );
}

const Hint = ({ children }: { children: ReactNode }) => <p className="quiet">{children}</p>;

interface DoProps {
  readonly does: () => unknown;
  readonly keys?: string;
  readonly main?: boolean;
  readonly off?: boolean;
  readonly children: ReactNode;
}

/** A button with the key that does the same. */
const Do = ({ does, keys, main = false, off = false, children }: DoProps) => (
  <Button variant={main ? 'filled' : 'default'} disabled={off} onClick={() => does()}>
    {children}
    {keys !== undefined && <kbd className="key">{keys}</kbd>}
  </Button>
);

/** Start, end and length of what is picked. */
function Times({ things }: { things: readonly Thing[] }) {
  const { frameRate, startTimecode } = useShown((programme) => programme.facts);
  const code = (time: Ticks) => formatTimecode(add(time, startTimecode), frameRate);
  const [first, last] = [things[0], things.at(-1)];
  if (!first || !last) return null;
  const length = toSeconds(subtract(last.end, first.start));
  return (
    <dl className="facts">
      <dt>{last.end > first.start ? 'From' : 'At'}</dt>
      <dd>{code(first.start)}</dd>
      {last.end > first.start && (
        <>
          <dt>To</dt>
          <dd>{code(last.end)}</dd>
          <dt>{things.length > 1 ? 'First to last' : 'Length'}</dt>
          <dd>{length < 1 ? `${Math.round(length * 1000)} ms` : `${length.toFixed(2)} s`}</dd>
        </>
      )}
    </dl>
  );
}

function Marks({ things, count }: Shown) {
  const marks = useShown((programme) => programme.marks);
  const mark = things.length === 1 ? marks[things[0]?.id ?? ''] : undefined;
  return (
    <>
      {mark ? <OneMark key={mark.id} mark={mark} /> : <Times things={things} />}
      {count === 0 && (
        <Hint>
          Press <kbd className="key">&apos;</kbd> as it plays, or make marks from beats, pieces or
          hits.
        </Hint>
      )}
      <div className={`${classes.buttons} ${classes.near}`}>
        <Do does={hold.dropMark} keys="'">
          Drop a mark
        </Do>
        <Do does={() => showWindow('makeMarks')} keys="Shift M" main={count === 0}>
          Make marks
        </Do>
        <Do does={() => showWindow('marks')} keys="M">
          Table of marks
        </Do>
        {things.length > 0 && (
          <Do does={hold.remove} keys="Delete">
            Delete {things.length > 1 ? `${things.length} marks` : 'it'}
          </Do>
        )}
      </div>
    </>
  );
}

function OneMark({ mark }: { mark: Mark }) {
  const [name, setName] = useState<string | null>(null);
  return (
    <>
      <div className={classes.two}>
        <TimeField
          label="At"
          time={mark.at}
          move={(to) => setMark(openNow().programme, mark.id, { at: to })}
        />
        <Select
          size="xs"
          label="For"
          data={PURPOSES.map((value) => ({ value, label: PURPOSE_LOOKS[value].name }))}
          value={mark.purpose}
          allowDeselect={false}
          leftSection={<PurposeTag purpose={mark.purpose} />}
          onChange={(purpose) =>
            purpose && make(setMark(openNow().programme, mark.id, { purpose: purpose as Purpose }))
          }
        />
      </div>
      <TextInput
        size="xs"
        label="Name"
        maxLength={500}
        value={name ?? mark.name}
        onChange={(event) => setName(event.currentTarget.value)}
        onBlur={() => {
          if (name !== null) make(setMark(openNow().programme, mark.id, { name }));
          setName(null);
        }}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      />
    </>
  );
}

/** A bar line is sure from here on. */
const SURE_BAR = 0.8;

function Beats({ things, count, programme }: Shown & { programme: Programme }) {
  const material = pulseMaterial(programme) ?? null;
  const beats = beatsInOrder(programme, material);
  const one = things.length > 0;
  const last = programme.beats[things.at(-1)?.id ?? ''];
  const metre = metreAt(beats, last?.at ?? ZERO);
  const sure = useMemo(() => sureOfBars(beats), [beats]);
  const fixed = things.every(({ id }) => programme.beats[id]?.fixed);
  const [first, end] = [beats[0], beats.at(-1)];
  const minutes = first && end ? toSeconds(subtract(end.at, first.at)) / 60 : 0;
  return (
    <>
      {count > 1 && (
        <dl className="facts">
          <dt>Average tempo</dt>
          <dd>{((beats.length - 1) / minutes).toFixed(1)} beats a minute</dd>
          <dt>Bars</dt>
          <dd>
            {beats.filter(({ bar }) => bar !== null).length}
            {sure && sure.length > 0 && (
              <span className="quiet">
                , sure of {sure.filter((each) => each >= SURE_BAR).length}
              </span>
            )}
          </dd>
        </dl>
      )}
      {one ? (
        <Times things={things} />
      ) : (
        <Hint>
          {count > 0
            ? 'Drag a beat to where you hear it. Say where a bar begins: the bars around settle.'
            : 'No pulse was found. Tap ; while the sound plays, or bring in a tempo map.'}
        </Hint>
      )}
      <div className={`${classes.buttons} ${classes.near}`}>
        <Do does={hold.halve} keys="H" off={count === 0}>
          Halve
        </Do>
        <Do does={hold.double} keys="D" off={count === 0}>
          Double
        </Do>
        <Do does={hold.firstBar} keys="B" off={count === 0}>
          {last?.pin ? 'Release the bar line' : 'Start a bar here'}
        </Do>
        <Do does={() => hold.shiftBars(1)} keys="Shift B" off={count === 0}>
          Move bars a beat
        </Do>
        <Do does={hold.shiftHalf} keys="Shift H" off={count === 0}>
          Move half a beat
        </Do>
        <Do does={hold.fix} keys="X" off={!one}>
          {one && fixed ? 'Release' : 'Fix'}
        </Do>
        <Do does={hold.remove} keys="Delete" off={!one}>
          Clear
        </Do>
        <Do does={() => showWindow('tempoMap')}>Tempo map …</Do>
      </div>
      {count > 0 && (
        <Select
          size="xs"
          w={210}
          label={one ? 'Metre from here on (R: next)' : 'Metre of all bars (R: next)'}
          data={[...METRES]}
          value={metre}
          allowDeselect={false}
          onChange={(value) => value && hold.setMetre(value as Metre)}
        />
      )}
    </>
  );
}

/** What can be done with pieces and hits alike. */
const SplitNewDelete = ({ what, one }: { what: string; one: boolean }) => (
  <>
    <Do does={hold.split} keys="\">
      Split at the playhead
    </Do>
    <Do does={hold.add} keys="N">
      New {what}
    </Do>
    <Do does={hold.remove} keys="Delete" off={!one}>
      Delete
    </Do>
  </>
);

function Pieces({ things }: Shown) {
  const one = things.length > 0;
  return (
    <>
      {one ? (
        <Times things={things} />
      ) : (
        <Hint>
          Click a piece of speech, or press Down to go to the next one. Drag its edges. Corrected
          pieces are left alone when speech is found again.
        </Hint>
      )}
      <div className={`${classes.buttons} ${classes.near}`}>
        <Do does={hold.play} keys="Shift Space" off={!one}>
          Play
        </Do>
        <Do does={hold.join} keys="J" off={!one}>
          Join
        </Do>
        <Do does={() => showWindow('findAgain')} keys="P" off={!one}>
          Find again here
        </Do>
        <SplitNewDelete what="piece" one={one} />
      </div>
    </>
  );
}

function Hits({ things, programme }: Shown & { programme: Programme }) {
  const one = things.length > 0;
  const hit = things.length === 1 ? programme.hits[things[0]?.id ?? ''] : undefined;
  const open = things.filter(({ id }) => !programme.hits[id]?.kept).length;
  return (
    <>
      {one ? (
        <Times things={things} />
      ) : (
        <Hint>
          Click a hit, or press Down to go to the next one. Find hits in Material sets how much one
          must stand out.
        </Hint>
      )}
      {hit && (
        <dl className="facts">
          {hit.drums && (
            <>
              <dt>Drums</dt>
              <dd>{hit.drums.map((drum) => DRUM_NAMES[drum]).join(', ')}</dd>
            </>
          )}
          {hit.level !== 0 && (
            <>
              <dt>Level</dt>
              <dd>{hit.level.toFixed(1)} dB to full scale</dd>
            </>
          )}
        </dl>
      )}
      <div className={`${classes.buttons} ${classes.near}`}>
        <Do does={hold.play} keys="Shift Space" off={!one}>
          Listen
        </Do>
        <Do does={hold.acceptHits} keys="V" off={open === 0}>
          Accept
        </Do>
        <SplitNewDelete what="hit" one={one} />
      </div>
    </>
  );
}
