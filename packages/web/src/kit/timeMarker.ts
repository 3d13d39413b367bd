/** A time in the margin of a text. */
import { GutterMarker } from '@codemirror/view';

export class TimeMarker extends GutterMarker {
  readonly #time: string;
  readonly #lasts: string;
  /** @param lasts  how long from then on, where that is shown too */
  constructor(time: string, lasts = '') {
    super();
    this.#time = time;
    this.#lasts = lasts;
  }
  override eq(other: GutterMarker): boolean {
    return (
      other instanceof TimeMarker && other.#time === this.#time && other.#lasts === this.#lasts
    );
  }
  override toDOM(): Node {
    const element = document.createElement('span');
    element.append(this.#time);
    if (this.#lasts !== '') {
      const lasts = element.appendChild(document.createElement('span'));
      lasts.className = 'cm-lasts';
      lasts.append(this.#lasts);
    }
    return element;
  }
}
