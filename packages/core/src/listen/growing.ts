/** Bytes that are collected one by one or in runs, without knowing how many there will be. */
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
