/** How what runs on Node is bundled, so that it starts at once. */
import { defineConfig } from 'vite';

/** Packages that stay outside: they hold binaries, or are found by their place in node_modules. */
const EXTERNAL = [
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
  'wawoff2',
];

/**
 * One bundle of what is started and of its helper thread.
 *
 * @param input  sources by the names of their bundles
 */
export const bundleForNode = (input: Readonly<Record<string, string>>) =>
  defineConfig({
    build: {
      ssr: true,
      target: 'node20',
      outDir: 'dist',
      emptyOutDir: true,
      minify: false,
      rollupOptions: {
        input,
        output: { entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' },
      },
    },
    ssr: { noExternal: true, external: EXTERNAL },
  });
