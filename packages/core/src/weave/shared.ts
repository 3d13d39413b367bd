/** Numbers that two threads look at. */

/** So many floats, which are not copied for another thread where the platform lets threads share memory. */
export const sharedFloats = (count: number): Float32Array =>
  typeof SharedArrayBuffer === 'undefined'
    ? new Float32Array(count)
    : new Float32Array(new SharedArrayBuffer(count * Float32Array.BYTES_PER_ELEMENT));
