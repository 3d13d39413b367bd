/** The tempo map of a Standard MIDI File (RP-001): when beats fall and where bars begin. */
import { parseMidi, type MidiData } from 'midi-file';
import { BEATS_A_BAR, METRES, type Metre } from '../../listen/metre.ts';
import { Unreadable } from '../captions.ts';

/** A tempo from an instant on; in 6/8 a beat is a dotted quarter. */
export interface MidiTempo {
  /** In seconds. */
  readonly at: number;
  /** Quarters a minute, as the file counts. */
  readonly bpm: number;
}

export interface TempoMap {
  readonly tempo: readonly MidiTempo[];
  readonly metre: readonly { readonly at: number; readonly metre: string }[];
  /** Every beat from the start of the file to its last event, in seconds, with the metre where a bar begins. */
  readonly beats: readonly { readonly at: number; readonly bar: Metre | null }[];
  readonly warnings: readonly string[];
}

interface Placed {
  readonly tick: number;
  readonly numerator?: number | undefined;
  readonly denominator?: number | undefined;
  readonly microseconds?: number | undefined;
}

/** @throws Unreadable where the bytes are no MIDI file or count in film frames */
export function readMidi(bytes: Uint8Array): TempoMap {
  let data: MidiData;
  try {
    data = parseMidi(bytes);
  } catch {
    throw new Unreadable('This is not a Standard MIDI File, or it is damaged.');
  }
  if (data.tracks.length === 0) throw new Unreadable('This MIDI file is damaged: it has no track.');
  const quarter = data.header.ticksPerBeat;
  if (quarter === undefined || quarter <= 0)
    throw new Unreadable('This MIDI file counts in film frames and has no beats.');
  const [events, end] = placed(data);
  const tempi = events.filter(({ microseconds }) => microseconds !== undefined);
  const secondsAt = clock(tempi, quarter);
  const signatures = events.filter(({ numerator }) => numerator !== undefined);
  const warnings: string[] = [];
  if (tempi.length === 0) warnings.push('The file names no tempo: 120 quarters a minute is taken.');
  return {
    tempo: (tempi.length > 0 ? tempi : [{ tick: 0, microseconds: 500_000 }]).map(
      ({ tick, microseconds }) => ({
        at: secondsAt(tick),
        bpm: 60_000_000 / (microseconds ?? 500_000),
      }),
    ),
    metre: signatures.map(({ tick, numerator, denominator }) => ({
      at: secondsAt(tick),
      metre: `${numerator}/${denominator}`,
    })),
    beats: beatsOf(signatures, quarter, end, secondsAt, warnings),
    warnings,
  };
}

/** Tempo and metre events of all tracks in order, and the last tick of any event. */
function placed(data: MidiData): [Placed[], number] {
  const found: Placed[] = [];
  let end = 0;
  for (const track of data.tracks) {
    let tick = 0;
    for (const event of track) {
      tick += event.deltaTime;
      if (event.type === 'setTempo') found.push({ tick, microseconds: event.microsecondsPerBeat });
      if (event.type === 'timeSignature')
        found.push({ tick, numerator: event.numerator, denominator: event.denominator });
    }
    end = Math.max(end, tick);
  }
  return [found.sort((a, b) => a.tick - b.tick), end];
}

/** From ticks of the file to seconds, by its tempi. */
function clock(tempi: readonly Placed[], quarter: number): (tick: number) => number {
  return (tick) => {
    let [seconds, from, microseconds] = [0, 0, 500_000];
    for (const tempo of tempi) {
      if (tempo.tick >= tick) break;
      seconds += ((tempo.tick - from) * microseconds) / quarter / 1e6;
      [from, microseconds] = [tempo.tick, tempo.microseconds ?? 500_000];
    }
    return seconds + ((tick - from) * microseconds) / quarter / 1e6;
  };
}

/** The metre that a bar is drawn in: one of ours with as many beats, or the one in four. */
function metreOf(numerator: number, denominator: number): Metre | undefined {
  return METRES.find((metre) => metre === `${numerator}/${denominator}`);
}

function beatsOf(
  signatures: readonly Placed[],
  quarter: number,
  end: number,
  secondsAt: (tick: number) => number,
  warnings: string[],
): { at: number; bar: Metre | null }[] {
  const beats: { at: number; bar: Metre | null }[] = [];
  const parts = signatures[0]?.tick === 0 ? signatures : [{ tick: 0 } as Placed, ...signatures];
  parts.forEach((part, place) => {
    const [numerator, denominator] = [part.numerator ?? 4, part.denominator ?? 4];
    const metre = metreOf(numerator, denominator);
    if (!metre) warnings.push(`Bars of ${numerator}/${denominator} are counted in quarters.`);
    const compound = denominator === 8 && numerator % 3 === 0;
    const step = (4 * quarter * (compound ? 3 : 1)) / denominator;
    const count = metre ? BEATS_A_BAR[metre] : compound ? numerator / 3 : numerator;
    const until = parts[place + 1]?.tick ?? end + 1;
    for (let beat = 0; part.tick + beat * step < until; beat++)
      beats.push({
        at: secondsAt(part.tick + beat * step),
        bar: beat % count === 0 ? (metre ?? '4/4') : null,
      });
  });
  return beats;
}
