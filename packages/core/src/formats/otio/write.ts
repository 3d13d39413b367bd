/** Writing captions as the markers of an OpenTimelineIO timeline. */
import { plainText } from '../../text/lines.ts';
import { subtract, toSeconds, type Ticks } from '../../time/ticks.ts';
import { Losses, type Caption, type Target, type Written } from '../captions.ts';

/** Writes each caption as a marker of the stack of tracks; styles, speakers, places and more are counted. */
export function writeOtio(
  captions: readonly Caption[],
  { frameRate, title = '' }: Target,
): Written {
  const losses = new Losses();
  const rate = frameRate.num / frameRate.den;
  const time = (value: Ticks) => ({
    OTIO_SCHEMA: 'RationalTime.1',
    value: Number((toSeconds(value) * rate).toFixed(6)),
    rate,
  });
  const markers = captions.map((caption) => {
    losses.countLooks(caption);
    losses.countRest(caption);
    return {
      OTIO_SCHEMA: 'Marker.2',
      name: plainText(caption.text),
      color: 'BLUE',
      marked_range: {
        OTIO_SCHEMA: 'TimeRange.1',
        start_time: time(caption.start),
        duration: time(subtract(caption.end, caption.start)),
      },
      metadata: {},
    };
  });
  const nothing = { source_range: null, effects: [], metadata: {} };
  const timeline = {
    OTIO_SCHEMA: 'Timeline.1',
    name: title,
    global_start_time: null,
    tracks: { OTIO_SCHEMA: 'Stack.1', name: 'tracks', children: [], markers, ...nothing },
    metadata: {},
  };
  return { text: `${JSON.stringify(timeline, null, 1)}\n`, lost: losses.list() };
}
