/** One bundle for Node of the command line and of its helper thread, so that it starts at once. */
import { defineConfig } from 'vite';
import { EXTERNAL } from '../node/external.ts';

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
  ssr: { noExternal: true, external: EXTERNAL },
});
