/** The selected cue: its text, its times, how it reads, and how it looks. */
import { Button, ColorInput, NumberInput, SegmentedControl } from '@mantine/core';
import { useEffect, useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { setStrandStyle, setStyle, setText } from '@cadence/core/programme/edits/text/reword.ts';
import { trimCue } from '@cadence/core/programme/edits/cues/trimCue.ts';
import { placeOf } from '@cadence/core/programme/order.ts';
import { styleOf, styleOfStrand } from '@cadence/core/programme/patterns.ts';
import type { Cue, TextStyle } from '@cadence/core/programme/programme.ts';
import { readingOf } from '@cadence/core/pace/reading.ts';
import { isUnsure } from '@cadence/core/programme/woven/unsure.ts';
import { plainText } from '@cadence/core/text/lines.ts';
import { countFrames } from '@cadence/core/time/frameRate.ts';
import { lengthOf } from '@cadence/core/time/range.ts';
import { add, subtract, toSeconds, type Ticks } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { act } from '../../desk/actions.ts';
import { make } from '../../desk/desk.ts';
import { plural } from '@cadence/core/text/plural.ts';
import {
  currentCues,
  currentPieces,
  openNow,
  useApp,
  useShown,
  useStrand,
} from '../../desk/store.ts';
import { CUE_NAMES } from '../../strands/kinds.ts';
import { Swatch } from '../../strands/Swatch.tsx';
import { FontSelect } from '../../picture/FontSelect.tsx';
import { OverSelect } from '../../picture/OverSelect.tsx';
import { WordChips } from '../../weaving/WordChips.tsx';
import { ReadingGauge } from '../../kit/ReadingGauge.tsx';
import { LeftToDo } from './LeftToDo.tsx';
import { Ties } from './Ties.tsx';
import { TimeField } from '../../kit/TimeField.tsx';
import { usePlayerState } from '../../playback/usePlayer.ts';
import { tapping } from '../tapping.ts';
import classes from './CuePanel.module.css';

export function CuePanel() {
  const selection = useApp((state) => state.view.selection);
  const programme = useShown((shown) => shown);
  const cue = programme.cues[selection.at(-1) ?? ''];
  const count = selection.filter((id) => programme.cues[id]).length;
  const cues = currentCues(programme);
  const strand = useStrand();
  const pieces = currentPieces(programme).length;
  if (!cue)
    return (
      <section className={`card ${classes.panel}`} aria-label="Selected cue">
        {cues.length > 0 || pieces > 0 ? (
          <>
            <h2 className={classes.heading}>Left to do</h2>
            <LeftToDo />
            <p className="quiet">
              No cue is selected. Click one, or press Down to go to the next one.
            </p>
          </>
        ) : (
          <div className="empty">
            <h2>No cues yet</h2>
            <p>Drag in the empty lane under the waveform, or press N at the playhead.</p>
          </div>
        )}
      </section>
    );
  return (
    <section className={`card ${classes.panel}`} aria-label="Selected cue">
      <h2 className={classes.heading}>
        <Swatch kind={strand.kind} />
        {count > 1
          ? `${plural(count, 'cue')} selected`
          : `${CUE_NAMES[strand.kind]} ${placeOf(cues, cue) + 1} of ${cues.length}`}
      </h2>
      {count > 1 ? (
        <Many
          cues={selection.map((id) => programme.cues[id]).filter((each) => each !== undefined)}
        />
      ) : cue.passage ? (
        <Travelling key={cue.id} cue={cue} />
      ) : (
        <One key={cue.id} cue={cue} cues={cues} />
      )}
    </section>
  );
}

/** What is true of several cues together, and what can be done with them. */
function Many({ cues }: { cues: readonly Cue[] }) {
  const { frameRate, startTimecode, profile } = useShown((programme) => programme.facts);
  const code = (time: number) => formatTimecode(add(time as Ticks, startTimecode), frameRate);
  const seconds = cues.reduce((sum, cue) => sum + toSeconds(lengthOf(cue)), 0);
  const fastest = Math.max(...cues.map((cue) => readingOf(cue).charactersASecond));
  return (
    <>
      <dl className="facts">
        <dt>From</dt>
        <dd>{code(Math.min(...cues.map((cue) => cue.start)))}</dd>
        <dt>To</dt>
        <dd>{code(Math.max(...cues.map((cue) => cue.end)))}</dd>
        <dt>Total on screen</dt>
        <dd>{seconds.toFixed(2)} s</dd>
        <dt>Fastest cue</dt>
        <dd>
          {fastest.toFixed(1)} characters a second, limit {profile.charactersASecond}
        </dd>
      </dl>
      <StyleForm />
      <div className={classes.buttons}>
        <Button onClick={act.join}>
          Join cues <kbd className="key">J</kbd>
        </Button>
        <Button onClick={act.closeGaps}>
          Close gaps <kbd className="key">G</kbd>
        </Button>
        <Button onClick={act.remove}>
          Delete {cues.length} cues <kbd className="key">Delete</kbd>
        </Button>
      </div>
    </>
  );
}

/** A cue that puts a passage on the programme. */
function Travelling({ cue }: { cue: Cue }) {
  const passage = useShown((programme) => programme.passages[cue.passage ?? '']);
  const navigate = useNavigate();
  return (
    <>
      <p className={classes.passage}>{passage?.title}</p>
      <Times cue={cue} />
      <Ties cue={cue} />
      <div className={classes.buttons}>
        <Button variant="filled" onClick={() => void navigate('../travel')}>
          Open in Travel
        </Button>
        <Button onClick={act.playCue}>
          Play <kbd className="key">Shift Space</kbd>
        </Button>
      </div>
    </>
  );
}

/** When a cue starts and ends, to be typed, and how long it is on screen. */
const Times = ({ cue, children }: { cue: Cue; children?: ReactNode }) => (
  <div className={classes.times}>
    {(['start', 'end'] as const).map((edge) => (
      <TimeField
        key={edge}
        label={edge === 'start' ? 'Start' : 'End'}
        time={cue[edge]}
        move={(to) => trimCue(openNow().programme, cue.id, edge, to)}
      />
    ))}
    <div>
      <span className="quiet">On screen</span>
      <b>{toSeconds(lengthOf(cue)).toFixed(2)} s</b>
    </div>
    {children}
  </div>
);

function One({ cue, cues }: { cue: Cue; cues: readonly Cue[] }) {
  const { frameRate, profile } = useShown((programme) => programme.facts);
  const next = cues[placeOf(cues, cue) + 1];
  const reading = readingOf(cue, next?.start);
  return (
    <>
      <CueText cue={cue} />
      {isUnsure(cue) && <Unsure cue={cue} />}
      <WordChips cue={cue} />
      <Times cue={cue}>
        <div>
          <span className="quiet">Gap to next</span>
          <b>
            {next === undefined
              ? 'last cue'
              : plural(countFrames(subtract(next.start, cue.end), frameRate), 'frame')}
          </b>
        </div>
      </Times>
      <Ties cue={cue} />
      <ReadingGauge reading={reading} profile={profile} />
      <StyleForm />
      <div className={classes.buttons}>
        <Button onClick={() => act.split()}>
          Split at playhead <kbd className="key">\</kbd>
        </Button>
        <Button onClick={act.join}>
          Join to next <kbd className="key">J</kbd>
        </Button>
        <Button onClick={act.playCue}>
          Play <kbd className="key">Shift Space</kbd>
        </Button>
      </div>
    </>
  );
}

/** A line that weaving is not sure of: heard where it can be, and tapped where it begins. */
function Unsure({ cue }: { cue: Cue }) {
  usePlayerState();
  return (
    <div className={classes.unsure} role="group" aria-label="Line not placed for sure">
      <span>Not placed for sure.</span>
      {tapping.hearsLine() ? (
        <Button
          variant="filled"
          onPointerDown={({ currentTarget, pointerId }) => {
            currentTarget.setPointerCapture(pointerId);
            tapping.press();
          }}
          onPointerUp={() => tapping.release()}
          onClick={({ detail }) => {
            // By the keyboard: no pointer was down.
            if (detail > 0) return;
            tapping.press();
            tapping.release();
          }}
        >
          Tap where it begins <kbd className="key">;</kbd>
        </Button>
      ) : (
        <Button onClick={() => tapping.hearLine(cue.id)}>Hear where it can be</Button>
      )}
    </div>
  );
}

/** The text, kept when the field is left or after a rest in typing. */
function CueText({ cue }: { cue: Cue }) {
  const kept = plainText(cue.text);
  const [text, setWritten] = useState(kept);
  useEffect(() => setWritten(kept), [kept]);
  const keep = () => {
    if (text !== kept) make(setText(openNow().programme, cue.id, text));
  };
  return (
    <textarea
      className={classes.text}
      aria-label="Text"
      placeholder="no text yet"
      rows={Math.max(2, text.split('\n').length)}
      value={text}
      onChange={(event) => setWritten(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Escape') {
          setWritten(kept);
          event.currentTarget.blur();
        }
        if (event.key === 'Enter' && !event.shiftKey) {
          event.preventDefault();
          event.currentTarget.blur();
        }
      }}
    />
  );
}

const TEXT_COLOURS = ['#ffffff', '#f2e6c9', '#f4d35e', '#9fd3e6', '#a9d8a4', '#14171c'];

/** Style of the selected cues, or of every subtitle. */
function StyleForm() {
  const programme = useShown((shown) => shown);
  const selection = useApp((state) => state.view.selection);
  const [scope, setScope] = useState('these');
  const [open, setOpen] = useState(false);
  const strand = useStrand();
  const cue = programme.cues[selection.at(-1) ?? ''];
  if (!cue) return null;
  const style = scope === 'all' ? styleOfStrand(programme, strand) : styleOf(programme, cue);
  const isTimed = style.saidColour || cue.words.length > 0;
  const set = (part: Partial<TextStyle>) => {
    const { programme: now } = openNow();
    make(scope === 'all' ? setStrandStyle(now, strand.id, part) : setStyle(now, selection, part));
  };
  if (!open)
    return (
      <button type="button" className={classes.look} onClick={() => setOpen(true)}>
        <span className="quiet">Look</span> {style.family}, {style.size} px, {style.down}{' '}
        {style.across}
      </button>
    );
  return (
    <fieldset className={classes.style}>
      <legend className={classes.legend}>
        <SegmentedControl
          aria-label="Apply to"
          value={scope}
          onChange={setScope}
          data={[
            { value: 'these', label: selection.length > 1 ? 'These cues' : 'This cue' },
            { value: 'all', label: 'The whole strand' },
          ]}
        />
        <span className="spring" />
        {scope === 'these' && Object.keys(cue.style).length > 0 && (
          <Button
            onClick={() => {
              const none = Object.fromEntries(
                Object.keys(cue.style).map((key) => [key, undefined]),
              );
              make(setStyle(openNow().programme, selection, none));
            }}
          >
            Reset to the strand’s look
          </Button>
        )}
        <Button onClick={() => setOpen(false)}>Done</Button>
      </legend>
      <FontSelect label="Font" value={style.family} set={(family) => set({ family })} />
      <NumberInput
        size="xs"
        label="Size, px"
        value={style.size}
        min={4}
        max={1000}
        onChange={(size) => typeof size === 'number' && size >= 4 && size <= 1000 && set({ size })}
      />
      <ColorInput
        size="xs"
        label="Colour"
        format="hex"
        swatches={TEXT_COLOURS}
        value={style.colour}
        onChangeEnd={(colour) => set({ colour })}
      />
      <ColorInput
        size="xs"
        label="Outline"
        format="hex"
        swatches={TEXT_COLOURS}
        value={style.outlineColour}
        onChangeEnd={(outlineColour) => set({ outlineColour })}
      />
      <NumberInput
        size="xs"
        label="Outline, px"
        value={style.outlineWidth}
        min={0}
        max={100}
        onChange={(width) =>
          typeof width === 'number' && width >= 0 && width <= 100 && set({ outlineWidth: width })
        }
      />
      {isTimed && (
        <ColorInput
          size="xs"
          label="Spoken word"
          placeholder="As the others"
          format="hex"
          swatches={TEXT_COLOURS}
          value={style.saidColour ?? ''}
          onChangeEnd={(colour) => set({ saidColour: colour === '' ? null : colour })}
        />
      )}
      <NumberInput
        size="xs"
        label="Margin, px"
        value={style.margin}
        min={-1000}
        max={4000}
        onChange={(margin) =>
          typeof margin === 'number' && Math.abs(margin) <= 4000 && set({ margin })
        }
      />
      {strand.kind === 'card' && (
        <>
          <OverSelect over={style} set={set} />
          <NumberInput
            size="xs"
            label="Fade, frames"
            value={style.fade ?? 0}
            min={0}
            max={200}
            onChange={(fade) =>
              typeof fade === 'number' && fade >= 0 && fade <= 200 && set({ fade })
            }
          />
        </>
      )}
      <div className={classes.pair}>
        <SegmentedControl
          aria-label="Vertical position"
          value={style.down}
          onChange={(down) => set({ down: down as TextStyle['down'], placed: null })}
          data={['top', 'middle', 'bottom']}
        />
        <SegmentedControl
          aria-label="Horizontal position"
          value={style.across}
          onChange={(across) => set({ across: across as TextStyle['across'], placed: null })}
          data={['left', 'centre', 'right']}
        />
      </div>
    </fieldset>
  );
}
