/** Time expressions of TTML 2 (W3C, section 12.3): clock times, frames, ticks and offsets. */
import { TICKS_PER_SECOND, ticks, type Ticks } from '../../time/ticks.ts';
import { attributeOf, type XmlElement } from '../xml.ts';

/** What a file's times are counted in. */
export interface TimeBase {
  /** Frames a second as they pass, the multiplier applied. */
  readonly frameRate: number;
  /** Frames a second as they are counted in a timecode. */
  readonly nominal: number;
  readonly subFrames: number;
  readonly tickRate: number;
  /** Whether a timecode leaves out frames, as SMPTE ST 12-1 does for 30000/1001. */
  readonly drops: boolean;
}

const PARAMETERS = 'http://www.w3.org/ns/ttml#parameter';

/**
 * The parameters of the root element, with their defaults: 30 frames a second, one sub-frame, and ticks as
 * many as sub-frames where a frame rate is given, else one a second.
 *
 * @param usual  frames a second, where the file gives times in frames and no rate
 */
export function timeBaseOf(root: XmlElement, usual = 30): TimeBase {
  // Older drafts had the parameters in namespaces of other names.
  const value = (name: string) =>
    attributeOf(root, name, PARAMETERS) ?? attributeOf(root, name) ?? '';
  const nominal = positive(value('frameRate')) ?? usual;
  const [times = '1', by = '1'] = value('frameRateMultiplier')
    .trim()
    .split(/[\s:]+/);
  const multiplier = (positive(times) ?? 1) / (positive(by) ?? 1);
  const frameRate = nominal * multiplier;
  const subFrames = positive(value('subFrameRate')) ?? 1;
  const given = value('frameRate') === '' ? 1 : frameRate * subFrames;
  return {
    frameRate,
    nominal,
    subFrames,
    tickRate: positive(value('tickRate')) ?? given,
    drops: value('timeBase') === 'smpte' && value('dropMode').startsWith('drop'),
  };
}

function positive(text: string): number | undefined {
  const value = Number(text);
  return text.trim() !== '' && Number.isFinite(value) && value > 0 ? value : undefined;
}

const clock = /^(\d{2,}):([0-5]?\d):([0-6]?\d)(?:(?:[.,](\d+))|(?:[:;](\d{1,3})(?:\.(\d+))?))?$/;
const offset = /^(\d+(?:\.\d+)?)(h|m|s|ms|f|t)$/;
const MOST_SECONDS = 1e6;

/** Ticks from a time expression; undefined where it is none. */
export function readTime(text: string, base: TimeBase): Ticks | undefined {
  const seconds = secondsOf(text.trim(), base);
  return seconds !== undefined && seconds < MOST_SECONDS
    ? ticks(seconds * TICKS_PER_SECOND)
    : undefined;
}

function secondsOf(text: string, base: TimeBase): number | undefined {
  const length = offset.exec(text);
  if (length) {
    const [, value, metric = 's'] = length;
    const seconds = {
      h: 3600,
      m: 60,
      s: 1,
      ms: 0.001,
      f: 1 / base.frameRate,
      t: 1 / base.tickRate,
    }[metric];
    return seconds === undefined ? undefined : Number(value) * seconds;
  }
  const parts = clock.exec(text);
  if (!parts) return undefined;
  const [, hours, minutes, whole, fraction, frames, subFrames] = parts;
  const minute = Number(hours) * 60 + Number(minutes);
  const full = minute * 60 + Number(whole);
  if (frames === undefined) return full + Number(`0.${fraction ?? 0}`);
  const parted = Number(frames) + Number(subFrames ?? 0) / base.subFrames;
  if (!base.drops) return full + parted / base.frameRate;
  const dropped = Math.round(base.nominal / 15) * (minute - Math.floor(minute / 10));
  return (full * base.nominal - dropped + parted) / base.frameRate;
}
