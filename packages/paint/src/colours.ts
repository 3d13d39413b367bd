/** Colours between others. */

/** A colour, `#rrggbb`, with so much of another one in it, from 0 to 1. */
export function mixed(colour: string, other: string, share: number): string {
  const part = (from: number): string => {
    const [a, b] = [colour, other].map((each) => parseInt(each.slice(from, from + 2), 16));
    const value = Math.round((a ?? 0) + ((b ?? 0) - (a ?? 0)) * share);
    return value.toString(16).padStart(2, '0');
  };
  return `#${part(1)}${part(3)}${part(5)}`;
}
