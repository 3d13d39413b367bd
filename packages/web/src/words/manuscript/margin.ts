/** The margins of the manuscript: when each cue begins, how long it is on screen, and how fast it must be read. */
import { type Extension } from '@codemirror/state';
import { gutter, GutterMarker, type BlockInfo, type EditorView } from '@codemirror/view';
import { easeOf, readingOf } from '@cadence/core/pace/reading.ts';
import type { Programme } from '@cadence/core/programme/programme.ts';
import { linesOf } from '@cadence/core/text/lines.ts';
import { add } from '@cadence/core/time/ticks.ts';
import { formatTimecode } from '@cadence/core/time/timecode.ts';
import { TimeMarker } from '../../kit/timeMarker.ts';
import { paragraphAt, paragraphEnd, paragraphsField } from './paragraphs.ts';

class StayMarker extends GutterMarker {
  readonly #stay: string;
  readonly #speed: number;
  readonly #limit: number;
  constructor(stay: string, speed: number, limit: number) {
    super();
    this.#stay = stay;
    this.#speed = Math.round(speed * 10) / 10;
    this.#limit = limit;
  }
  override eq(other: GutterMarker): boolean {
    return (
      other instanceof StayMarker &&
      other.#stay === this.#stay &&
      other.#speed === this.#speed &&
      other.#limit === this.#limit
    );
  }
  override toDOM(): Node {
    const whole = document.createElement('span');
    whole.className = 'cm-stay';
    whole.title = `${this.#speed.toFixed(1)} characters a second, limit ${this.#limit}`;
    const bar = document.createElement('span');
    bar.className = `gauge ${easeOf(this.#speed, this.#limit)}`;
    const fill = document.createElement('b');
    fill.style.width = `${Math.min(1, this.#speed / this.#limit) * 100}%`;
    bar.append(fill);
    whole.append(this.#stay, bar);
    return whole;
  }
}

/** The cue whose paragraph begins with a line, and its text as it stands in the editor. */
function cueBeginning(view: EditorView, line: BlockInfo, programme: Programme) {
  const paragraphs = view.state.field(paragraphsField);
  const place = paragraphAt(paragraphs, line.from);
  if (paragraphs.starts[place] !== line.from) return undefined;
  const cue = programme.cues[paragraphs.cues[place]?.[0] ?? ''];
  if (!cue) return undefined;
  const { doc } = view.state;
  const text = () => doc.sliceString(line.from, paragraphEnd(paragraphs, place, doc.length));
  return { cue, text };
}

/** @param programme  gives the programme as it is now */
export function margins(programme: () => Programme): Extension {
  const common = {
    lineMarkerChange: () => true,
    renderEmptyElements: false,
  };
  return [
    gutter({
      ...common,
      class: 'cm-times',
      lineMarker: (view, line) => {
        const now = programme();
        const found = cueBeginning(view, line, now);
        if (!found) return null;
        const { startTimecode, frameRate } = now.facts;
        return new TimeMarker(formatTimecode(add(found.cue.start, startTimecode), frameRate));
      },
      initialSpacer: () => new TimeMarker('00:00:00:00'),
    }),
    gutter({
      ...common,
      class: 'cm-stays',
      side: 'after',
      lineMarker: (view, line) => {
        const now = programme();
        const found = cueBeginning(view, line, now);
        if (!found) return null;
        const reading = readingOf({ ...found.cue, text: linesOf(found.text()) });
        const limit = now.facts.profile.charactersASecond;
        return new StayMarker(`${reading.onScreen.toFixed(1)} s`, reading.charactersASecond, limit);
      },
      initialSpacer: () => new StayMarker('00.0 s', 0, 1),
    }),
  ];
}
