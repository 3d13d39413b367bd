/** Packages that stay outside bundles for Node: they hold binaries, or are found by their place in node_modules. */
export const EXTERNAL = [
  '@napi-rs/canvas',
  'harfbuzzjs',
  'mediabunny',
  'client-zip',
  '@wasm-audio-decoders/flac',
  '@wasm-audio-decoders/ogg-vorbis',
  'mpg123-decoder',
  '@napi-rs/webcodecs',
  'ogg-opus-decoder',
  'dictionary-en',
  'dictionary-en-gb',
  'mammoth',
];
