/** What leaves beside captions: a film, its text alone, still pictures and the sound, with their choices. */
import {
  Button,
  Checkbox,
  ColorInput,
  MultiSelect,
  NumberInput,
  Select,
  TextInput,
} from '@mantine/core';
import { isHeard } from '@cadence/core/mix/keySounds.ts';
import { strandsShown } from '@cadence/core/programme/order.ts';
import { isTravelling, type Programme } from '@cadence/core/programme/programme.ts';
import { plural } from '@cadence/core/text/plural.ts';
import { nameRate } from '@cadence/core/time/frameRate.ts';
import type { Range } from '@cadence/core/time/range.ts';
import { subtract } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import {
  halved,
  sizeOf,
  sizeWith,
  type AudioCodec,
  type Quality,
} from '@cadence/film/write/order.ts';
import type { LeavingKind, Leaves } from '../desk/view.ts';
import { formatBytes, formatLength } from '../kit/format.ts';
import { FILM_FORMATS, filmAsked, stillsAsked, textAsked } from '../writing/asked.ts';
import type { Writable } from '../writing/writable.ts';
import { player } from '../playback/player.ts';
import { ChoiceCard } from './ChoiceCard.tsx';
import classes from './HandoverPlace.module.css';

const LINES = [2160, 1080, 720, 540];
const QUALITIES: readonly { value: Quality; label: string }[] = [
  { value: 'better', label: 'Better quality' },
  { value: 'good', label: 'Good quality' },
  { value: 'smallest', label: 'Smallest file' },
];
const OWN_BITRATE = 'own';
/** Bits a second in a megabit, and what is offered first. */
const MEGABIT = 1_000_000;
const FIRST_BITRATE = 4 * MEGABIT;

interface LeavingProps {
  readonly programme: Programme;
  readonly strand: string;
  readonly leaves: Leaves;
  readonly choose: (changed: Partial<Leaves>) => void;
  /** What is written of the programme; a sentence where that cannot be. */
  readonly range: Range | string;
  readonly audio: AudioCodec;
  /** What this browser can write; undefined until it was asked. */
  readonly can: Writable | undefined;
  /** The file that the film is written into, where the editor has chosen one. */
  readonly own: FileSystemFileHandle | undefined;
  /** Undefined where the browser writes into no files of the editor's choice. */
  readonly chooseOwn: (() => void) | undefined;
}

export function LeavingCards(props: LeavingProps) {
  const { programme, strand, leaves, choose, range, audio, can } = props;
  const { facts } = programme;
  const { kinds } = leaves;
  const on = (kind: LeavingKind) => kinds.includes(kind);
  const toggle = (kind: LeavingKind) =>
    choose({ kinds: on(kind) ? kinds.filter((each) => each !== kind) : [...kinds, kind] });
  const known = typeof range === 'string' ? { start: 0 as never, end: facts.length } : range;
  const film = filmAsked(programme, leaves, known, audio);
  const text = textAsked(programme, leaves, known);
  const size = `${film.width} × ${film.height}`;
  const about = (bytes: number | undefined) =>
    bytes === undefined ? '' : `, about ${formatBytes(bytes)}`;
  const stills = stillsAsked(programme, leaves, strand, player.time);
  const hasSound = isHeard(programme);
  return (
    <>
      <ChoiceCard
        title="Film with text on it"
        on={on('film')}
        toggle={() => toggle('film')}
        note={`${size}${about(sizeOf(film))}`}
      >
        <div className={classes.pairs}>
          <Select
            size="xs"
            label="Format"
            allowDeselect={false}
            data={FILM_FORMATS.map(({ value, label }) => ({ value, label }))}
            value={leaves.format}
            onChange={(format) => format && choose({ format })}
          />
          <SizeSelect {...props} />
          <Select
            size="xs"
            label="Frames a second"
            allowDeselect={false}
            data={[
              { value: 'whole', label: nameRate(facts.frameRate) },
              { value: 'half', label: `${nameRate(halved(facts.frameRate))}, every second frame` },
            ]}
            value={leaves.half ? 'half' : 'whole'}
            onChange={(value) => choose({ half: value === 'half' })}
          />
          <QualitySelect {...props} />
          <LoudnessSelect {...props} />
          <MultiSelect
            size="xs"
            label="As subtitle tracks, not drawn"
            placeholder={leaves.tracks.length === 0 ? 'None' : ''}
            data={strandsShown(programme)
              .filter(({ kind }) => !isTravelling(kind))
              .map(({ id, title }) => ({ value: id, label: title }))}
            value={leaves.tracks.filter((id) => id in programme.strands)}
            onChange={(tracks) => choose({ tracks })}
          />
        </div>
        {can && film.audio === 'opus' && film.container === 'mp4' && (
          <p className="quiet" role="status">
            The sound will be in Opus: this browser cannot write AAC, which some players want. The
            server can.
          </p>
        )}
        {leaves.where === 'server' && film.video === 'av1' && (
          <p className="quiet" role="status">
            The server takes about a second for each frame of AV1.
          </p>
        )}
        {leaves.where === 'here' && can?.hardware && (
          <p className="quiet">This machine’s own encoder will be used.</p>
        )}
        {props.chooseOwn && (
          <div className="bar">
            <Button onClick={props.chooseOwn}>Choose where …</Button>
            <span className="quiet">
              {props.own
                ? `Straight into ${props.own.name}`
                : 'Kept in this browser, then saved as a download'}
            </span>
          </div>
        )}
      </ChoiceCard>
      <ChoiceCard
        title="Text alone"
        on={on('text')}
        toggle={() => toggle('text')}
        note={leaves.text === 'colour' ? 'Over one colour' : 'See-through, to lay over a film'}
      >
        <div className={classes.pairs}>
          <Select
            size="xs"
            label="As"
            allowDeselect={false}
            data={[
              { value: 'webm', label: 'WebM, see-through' },
              { value: 'zip', label: 'PNG pictures in a ZIP' },
              { value: 'colour', label: 'Film over one colour' },
            ]}
            value={leaves.text}
            onChange={(as) => as && choose({ text: as as Leaves['text'] })}
          />
          {leaves.text === 'colour' ? (
            <ColorInput
              size="xs"
              label="Colour"
              format="hex"
              value={leaves.colour}
              onChangeEnd={(colour) => /^#[0-9a-f]{6}$/i.test(colour) && choose({ colour })}
            />
          ) : (
            <SizeSelect {...props} />
          )}
        </div>
        <p className="quiet">
          {`${text.width} × ${text.height}, ${nameRate(text.rate)} frames a second${about(sizeOf(text))}`}
        </p>
      </ChoiceCard>
      <ChoiceCard
        title="Stills"
        on={on('stills')}
        toggle={() => toggle('stills')}
        note={stills.length === 1 ? 'One PNG' : `${plural(stills.length, 'PNG')} in a ZIP`}
      >
        <div className={classes.pairs}>
          <Select
            size="xs"
            label="Of"
            allowDeselect={false}
            data={[
              { value: 'frame', label: 'This frame' },
              { value: 'cues', label: 'Each cue of the strand' },
              { value: 'marks', label: 'Each mark' },
            ]}
            value={leaves.stills}
            onChange={(of) => of && choose({ stills: of as Leaves['stills'] })}
          />
          <SizeSelect {...props} />
        </div>
        <Checkbox
          checked={leaves.stillsAlone}
          onChange={(event) => choose({ stillsAlone: event.currentTarget.checked })}
          color="var(--ink)"
          iconColor="var(--linen)"
          size="xs"
          label="Text alone, on nothing"
        />
      </ChoiceCard>
      <ChoiceCard
        title="Sound"
        on={on('sound')}
        toggle={() => toggle('sound')}
        note={hasSound ? 'WAV, with marks as cue points' : 'No sound is heard'}
      >
        <div className={classes.pairs}>
          <Select
            size="xs"
            label="Bits"
            allowDeselect={false}
            data={['24', '16']}
            value={String(leaves.bits)}
            onChange={(bits) => choose({ bits: bits === '16' ? 16 : 24 })}
          />
          <LoudnessSelect {...props} />
        </div>
      </ChoiceCard>
      {kinds.some((kind) => kind !== 'stills') && <RangeChoice {...props} />}
    </>
  );
}

function SizeSelect({ programme, leaves, choose }: LeavingProps) {
  const { frame } = programme.facts;
  const sizes = [...new Set([frame.height, ...LINES])];
  return (
    <Select
      size="xs"
      label="Size"
      allowDeselect={false}
      data={sizes.map((lines) => {
        const { width, height } = sizeWith(frame, lines);
        return { value: String(lines), label: `${width} × ${height}` };
      })}
      value={String(leaves.lines ?? frame.height)}
      onChange={(lines) => choose({ lines: Number(lines) === frame.height ? null : Number(lines) })}
    />
  );
}

function QualitySelect({ leaves, choose }: LeavingProps) {
  const { quality } = leaves;
  return (
    <>
      <Select
        size="xs"
        label="Quality"
        allowDeselect={false}
        data={[...QUALITIES, { value: OWN_BITRATE, label: 'A bit rate' }]}
        value={typeof quality === 'number' ? OWN_BITRATE : quality}
        onChange={(value) =>
          choose({ quality: value === OWN_BITRATE ? FIRST_BITRATE : (value as Quality) })
        }
      />
      {typeof quality === 'number' && (
        <NumberInput
          size="xs"
          label="Megabits a second"
          min={0.1}
          max={200}
          decimalScale={1}
          value={quality / MEGABIT}
          onChange={(rate) =>
            typeof rate === 'number' &&
            rate >= 0.1 &&
            rate <= 200 &&
            choose({ quality: rate * MEGABIT })
          }
        />
      )}
    </>
  );
}

function LoudnessSelect({ leaves, choose }: LeavingProps) {
  return (
    <Select
      size="xs"
      label="Loudness"
      allowDeselect={false}
      data={[
        { value: '', label: 'As it is' },
        { value: '-23', label: '-23 LUFS, broadcast' },
        { value: '-16', label: '-16 LUFS, podcasts' },
        { value: '-14', label: '-14 LUFS, streaming' },
      ]}
      value={leaves.loudness === null ? '' : String(leaves.loudness)}
      onChange={(value) => choose({ loudness: value ? Number(value) : null })}
    />
  );
}

/** Which part of the programme leaves. */
function RangeChoice({ programme, leaves, choose, range }: LeavingProps) {
  const { frameRate, startTimecode } = programme.facts;
  const example = formatTimecode(startTimecode, frameRate);
  return (
    <div className={`card ${classes.formatCard}`}>
      <div className={classes.pairs}>
        <Select
          size="xs"
          label="Part of the programme"
          allowDeselect={false}
          data={[
            { value: 'all', label: 'All of it' },
            { value: 'selection', label: 'The selected cues' },
            { value: 'passage', label: 'The roll or crawl in hand' },
            { value: 'typed', label: 'From one time to another' },
          ]}
          value={leaves.range}
          onChange={(value) => value && choose({ range: value as Leaves['range'] })}
        />
        {leaves.range === 'typed' && (
          <span className={classes.times}>
            <TextInput
              size="xs"
              label="From"
              placeholder={example}
              value={leaves.from}
              onChange={(event) => choose({ from: event.currentTarget.value })}
            />
            <TextInput
              size="xs"
              label="Up to"
              placeholder={example}
              value={leaves.to}
              onChange={(event) => choose({ to: event.currentTarget.value })}
            />
          </span>
        )}
      </div>
      {typeof range !== 'string' && (
        <p className="quiet">{formatLength(subtract(range.end, range.start))} will be written.</p>
      )}
    </div>
  );
}
