/** Numbers that two threads look at. */

/** An array of floats, shared with other threads where the platform allows shared memory, copied elsewhere. */
export const sharedFloats = (count: number): Float32Array =>
  typeof SharedArrayBuffer === 'undefined'
    ? new Float32Array(count)
    : new Float32Array(new SharedArrayBuffer(count * Float32Array.BYTES_PER_ELEMENT));
