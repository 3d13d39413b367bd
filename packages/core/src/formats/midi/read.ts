/** The tempo map of a Standard MIDI File (RP-001): when beats fall and where bars begin. */
import { parseMidi, type MidiData } from 'midi-file';
import { BEATS_A_BAR, METRES, type Metre } from '../../listen/pulse/metre.ts';
import { linesOf } from '../../text/lines.ts';
import { fromSeconds } from '../../time/ticks.ts';
import { Unreadable, type Caption, type CaptionWord } from '../captions.ts';

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
  /** What is sung, line by line, with the time of each word. */
  readonly lyrics: readonly Caption[];
  readonly warnings: readonly string[];
}

interface Placed {
  readonly lyric?: string | undefined;
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
  if (tempi.length === 0) warnings.push('The file has no tempo. 120 quarters a minute is assumed.');
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
    lyrics: lyricsOf(events, end, secondsAt),
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
      if (event.type === 'lyrics') found.push({ tick, lyric: event.text });
    }
    end = Math.max(end, tick);
  }
  return [found.sort((a, b) => a.tick - b.tick), end];
}

/** From ticks of the file to seconds, by its tempi, which are in order. */
function clock(tempi: readonly Placed[], quarter: number): (tick: number) => number {
  /** From when on each tempo holds. */
  const parts = [{ tick: 0, seconds: 0, microseconds: 500_000 }];
  const secondsIn = (part: (typeof parts)[number], tick: number): number =>
    part.seconds + ((tick - part.tick) * part.microseconds) / quarter / 1e6;
  for (const { tick, microseconds = 500_000 } of tempi) {
    const seconds = secondsIn(parts.at(-1) as (typeof parts)[number], tick);
    parts.push({ tick, seconds, microseconds });
  }
  return (tick) => {
    let [low, high] = [0, parts.length];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if ((parts[middle] as (typeof parts)[number]).tick < tick) low = middle;
      else high = middle;
    }
    return secondsIn(parts[low] as (typeof parts)[number], tick);
  };
}

/** The metre that a bar is drawn in: one of ours with as many beats, or the one in four. */
function metreOf(numerator: number, denominator: number): Metre | undefined {
  return METRES.find((metre) => metre === `${numerator}/${denominator}`);
}

/** Days of music have no more. */
const MOST_BEATS = 200_000;

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
    for (let beat = 0; part.tick + beat * step < until && beats.length < MOST_BEATS; beat++)
      beats.push({
        at: secondsAt(part.tick + beat * step),
        bar: beat % count === 0 ? (metre ?? '4/4') : null,
      });
  });
  if (beats.length >= MOST_BEATS)
    warnings.push(
      `The file has more than ${MOST_BEATS.toLocaleString('en-GB')} beats; the others were left out.`,
    );
  return beats;
}

/** A line of lyrics ends where nothing is sung for so long, in seconds. */
const PAUSE = 3;

/**
 * Lyric events as lines: each event is a syllable, a space ends a word, a hyphen at its end goes on, and a
 * carriage return or line feed ends the line (MIDI Manufacturers Association, RP-017).
 */
function lyricsOf(
  events: readonly Placed[],
  end: number,
  secondsAt: (tick: number) => number,
): Caption[] {
  const captions: Caption[] = [];
  let words: { text: string; at: number }[] = [];
  let goesOn = false;
  const last = secondsAt(end);
  const close = (until: number) => {
    const from = words[0]?.at;
    if (from === undefined) return;
    const stop = Math.max(from, until);
    captions.push({
      start: fromSeconds(from),
      end: fromSeconds(stop),
      text: linesOf(words.map(({ text }) => text).join(' ')),
      words: words.map(({ text, at }, place): CaptionWord => ({
        text,
        start: fromSeconds(at),
        end: fromSeconds(words[place + 1]?.at ?? stop),
      })),
    });
    words = [];
    goesOn = false;
  };
  const sung = events.filter(({ lyric }) => lyric !== undefined);
  // Without a space anywhere, each event is a word unless a hyphen says that it goes on.
  const spaced = sung.some(({ lyric = '' }) => /^ | $/.test(lyric.replace(/[\r\n]/g, '')));
  sung.forEach(({ tick, lyric = '' }, place) => {
    const at = secondsAt(tick);
    const letters = decoded(lyric);
    const text = letters.replace(/[\r\n]/g, '');
    const syllable = text.trim().replace(/-$/, '');
    if (syllable !== '') {
      const before = words.at(-1);
      if (before && goesOn && !/^\s/.test(text)) before.text += syllable;
      else words.push({ text: syllable, at });
      goesOn = spaced ? !/\s$/.test(text) : /-$/.test(text.trim());
    }
    const next = sung[place + 1];
    const following =
      next === undefined ? Math.max(at, Math.min(last, at + PAUSE)) : secondsAt(next.tick);
    if (/[\r\n]/.test(letters) || following - at > PAUSE || next === undefined)
      close(Math.min(following, at + PAUSE));
  });
  return captions;
}

/** The package gives each byte as a letter; most files mean UTF-8, and the others Latin. */
function decoded(letters: string): string {
  const bytes = Uint8Array.from(letters, (letter) => letter.charCodeAt(0) & 0xff);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return letters;
  }
}
