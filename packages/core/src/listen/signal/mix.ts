/** The mean of the channels. */
export function mix(channels: readonly Float32Array[]): Float32Array {
  const [first = new Float32Array(0), ...others] = channels;
  if (others.length === 0) return first;
  const mono = Float32Array.from(first);
  for (const other of others)
    for (let at = 0; at < mono.length; at++)
      mono[at] = (mono[at] as number) + (other[at] as number);
  return mono.map((sum) => sum / channels.length);
}
