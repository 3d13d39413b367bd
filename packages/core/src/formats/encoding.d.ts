/** The part of the WHATWG Encoding Standard that every place we run in has. */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean });
  readonly encoding: string;
  decode(input: Uint8Array): string;
}
