/** One bundle for Node of the command line and of its helper thread, so that it starts at once. */
import { defineConfig } from 'vite';

export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    minify: false,
    rollupOptions: {
      input: {
        main: 'src/main.ts',
        // The name by which the helper is started beside whatever starts it.
        'helper.worker': '../node/src/helperWorker.ts',
      },
      output: { entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' },
    },
  },
  ssr: {
    noExternal: true,
    // What holds binaries, or is found by its place in node_modules.
    external: [
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
    ],
  },
});
