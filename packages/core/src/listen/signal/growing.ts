/** Numbers that are collected one by one, without knowing how many there will be. */

/** Bytes, into which all that is pushed is made to fit. */
export class GrowingBytes {
  #bytes: Uint8Array<ArrayBuffer>;
  #length = 0;

  /** @param room  for how many there is room at first */
  constructor(room = 6000) {
    this.#bytes = new Uint8Array(room);
  }

  get length(): number {
    return this.#length;
  }

  /** The number at a place; 0 where there is none. */
  at(place: number): number {
    return place < this.#length ? (this.#bytes[place] ?? 0) : 0;
  }

  /** @param value  0 to 255; what lies beyond is brought to the nearer end, and fractions are rounded */
  push(value: number): void {
    if (this.#length === this.#bytes.length) {
      const larger = new Uint8Array(this.#bytes.length * 2);
      larger.set(this.#bytes);
      this.#bytes = larger;
    }
    this.#bytes[this.#length++] = Math.max(0, Math.min(255, Math.round(value)));
  }

  /** All of them, as bytes of their own. */
  all(): Uint8Array {
    return this.#bytes.slice(0, this.#length);
  }
}

/** Floats that are kept together. */
const BLOCK = 65_536;

/** Floats, of which there may be very many: no room is held for more than there are. */
export class GrowingFloats {
  readonly #full: Float32Array[] = [];
  #last = new Float32Array(BLOCK);
  #used = 0;

  get length(): number {
    return this.#full.length * BLOCK + this.#used;
  }

  push(value: number): void {
    if (this.#used === BLOCK) {
      this.#full.push(this.#last);
      this.#last = new Float32Array(BLOCK);
      this.#used = 0;
    }
    this.#last[this.#used++] = value;
  }

  /** All of them, as an array of their own. */
  all(): Float32Array {
    const all = new Float32Array(this.length);
    this.#full.forEach((block, at) => {
      all.set(block, at * BLOCK);
    });
    all.set(this.#last.subarray(0, this.#used), this.#full.length * BLOCK);
    return all;
  }
}
