/** A time in the margin of a text. */
import { GutterMarker } from '@codemirror/view';

export class TimeMarker extends GutterMarker {
  readonly #time: string;
  constructor(time: string) {
    super();
    this.#time = time;
  }
  override eq(other: GutterMarker): boolean {
    return other instanceof TimeMarker && other.#time === this.#time;
  }
  override toDOM(): Node {
    return document.createTextNode(this.#time);
  }
}
