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

/** Floats. */
export class GrowingFloats {
  #floats = new Float32Array(4096);
  #length = 0;

  get length(): number {
    return this.#length;
  }

  push(value: number): void {
    if (this.#length === this.#floats.length) {
      const larger = new Float32Array(this.#floats.length * 2);
      larger.set(this.#floats);
      this.#floats = larger;
    }
    this.#floats[this.#length++] = value;
  }

  /** All of them, as an array of their own. */
  all(): Float32Array {
    return this.#floats.slice(0, this.#length);
  }
}
