/** Reading OpenTimelineIO JSON: the clips of a timeline where they stand in it, and its markers. */
import { Unreadable, type Warning } from '../captions.ts';

export interface TimelineThing {
  /** In seconds from the start of the timeline. */
  readonly start: number;
  readonly end: number;
  readonly text: string;
}

export interface ReadTimeline {
  readonly clips: readonly TimelineThing[];
  readonly markers: readonly (Omit<TimelineThing, 'end'> & { readonly end?: number })[];
  readonly title?: string;
  readonly warnings: readonly Warning[];
}

type Json = Readonly<Record<string, unknown>>;

const DEEPEST = 60;
const isJson = (value: unknown): value is Json => typeof value === 'object' && value !== null;
const listOf = (value: unknown): Json[] => (Array.isArray(value) ? value.filter(isJson) : []);
const nameOf = (thing: Json): string => (typeof thing.name === 'string' ? thing.name : '');
const schemaOf = (thing: Json): string => String(thing.OTIO_SCHEMA ?? '').split('.')[0] ?? '';

/** Seconds of a RationalTime; undefined where it is none. */
function secondsOf(time: unknown): number | undefined {
  if (!isJson(time)) return undefined;
  const [value, rate] = [Number(time.value), Number(time.rate)];
  const found = value / rate;
  return rate > 0 && Number.isFinite(found) ? found : undefined;
}

interface Stretch {
  readonly start: number;
  readonly length: number;
}

function rangeOf(range: unknown): Stretch | undefined {
  if (!isJson(range)) return undefined;
  const [start, length] = [secondsOf(range.start_time), secondsOf(range.duration)];
  return start === undefined || length === undefined ? undefined : { start, length };
}

/** @throws Unreadable where it is no JSON, or holds no timeline with a clip or a marker */
export function readOtio(source: string): ReadTimeline {
  let root: unknown;
  try {
    root = JSON.parse(source.replace(/^\uFEFF/, ''));
  } catch (error) {
    if (error instanceof RangeError)
      throw new Unreadable('This JSON is nested too deep to be read.');
    throw new Unreadable('This is not JSON, or it is damaged.');
  }
  if (!isJson(root) || schemaOf(root) === '')
    throw new Unreadable('This JSON is not OpenTimelineIO: it names no schema.');
  const reader = new TimelineReader();
  if (schemaOf(root) === 'Timeline') reader.place(root.tracks, 0, 0);
  else if (schemaOf(root) === 'SerializableCollection')
    for (const child of listOf(root.children))
      reader.place(schemaOf(child) === 'Timeline' ? child.tracks : child, 0, 0);
  else reader.place(root, 0, 0);
  const byStart = (a: { start: number }, b: { start: number }) => a.start - b.start;
  const title = nameOf(root);
  if (reader.clips.length === 0 && reader.markers.length === 0)
    throw new Unreadable('There is no clip and no marker in this timeline.');
  return {
    clips: reader.clips.sort(byStart),
    markers: reader.markers.sort(byStart),
    ...(title !== '' && { title }),
    warnings: reader.warnings,
  };
}

/** A stretch of the timeline, in seconds. */
interface Window {
  readonly from: number;
  readonly to: number;
}
const ALL: Window = { from: -Infinity, to: Infinity };

class TimelineReader {
  readonly clips: TimelineThing[] = [];
  readonly markers: ReadTimeline['markers'][number][] = [];
  readonly warnings: Warning[] = [];

  /**
   * Puts what an item holds at an instant of the timeline, as far as it lies in the window that is shown.
   *
   * @returns how long the item is, in seconds
   */
  place(item: unknown, at: number, depth: number, shown: Window = ALL): number {
    if (!isJson(item)) return 0;
    if (depth > DEEPEST) throw new Unreadable('Its tracks are nested too deep.');
    const schema = schemaOf(item);
    if (schema === 'Transition') return 0;
    const source = rangeOf(item.source_range);
    const children = listOf(item.children);
    // What is within counts from the start of the range that is used of it.
    const origin = at - (source?.start ?? 0);
    let length = source?.length ?? 0;
    const within = source
      ? { from: Math.max(shown.from, at), to: Math.min(shown.to, at + length) }
      : shown;
    if (schema === 'Track' || schema === 'Stack') {
      let end = 0;
      for (const child of children) {
        const start = origin + (schema === 'Track' ? end : 0);
        const long = this.place(child, start, depth + 1, within);
        end = schema === 'Track' ? end + long : Math.max(end, long);
      }
      length = source?.length ?? end;
      this.#mark(item, origin, within);
      return length;
    }
    const media = available(item);
    const used = source ?? media;
    length = used?.length ?? 0;
    if (schema === 'Clip') {
      if (!used) this.#warn('clip', `The clip "${nameOf(item).slice(0, 40)}" has no length.`);
      if (listOf(item.effects).some((effect) => /TimeWarp|FreezeFrame/.test(schemaOf(effect))))
        this.#warn(
          'speed',
          `The clip "${nameOf(item).slice(0, 40)}" plays at another speed. Its markers may be off.`,
        );
      const [start, end] = [Math.max(at, shown.from), Math.min(at + length, shown.to)];
      if (end > start || !used)
        this.clips.push({ start, end: Math.max(start, end), text: nameOf(item) });
    } else if (schema !== 'Gap')
      this.#warn('kind', `An item of the kind "${schema.slice(0, 40)}" was left out.`);
    this.#mark(item, at - (used?.start ?? 0), within);
    return length;
  }

  #mark(item: Json, origin: number, { from, to }: Window): void {
    for (const marker of listOf(item.markers)) {
      const range = rangeOf(marker.marked_range);
      const comment = typeof marker.comment === 'string' ? marker.comment : '';
      const text = nameOf(marker) || comment;
      if (!range) {
        this.#warn('marker', `The marker "${text.slice(0, 40)}" has no time. It was left out.`);
        continue;
      }
      const start = origin + range.start;
      if (start < from || start > to) continue;
      this.markers.push({
        start,
        ...(range.length > 0 && { end: start + range.length }),
        text,
      });
    }
  }

  #warn(kind: string, message: string): void {
    this.warnings.push({ kind, line: 0, message });
  }
}

/** The whole of what a clip's medium has. */
function available(item: Json): Stretch | undefined {
  const references = isJson(item.media_references) ? item.media_references : {};
  const active = references[String(item.active_media_reference_key ?? 'DEFAULT_MEDIA')];
  const reference = isJson(item.media_reference) ? item.media_reference : active;
  return isJson(reference) ? rangeOf(reference.available_range) : undefined;
}
