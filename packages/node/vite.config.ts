/** Bundles for Node of the crew that writes films, and of its threads, so that they start at once. */
import { defineConfig } from 'vite';
import { EXTERNAL } from './external.ts';

export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    minify: false,
    rollupOptions: {
      input: {
        crewProcess: 'src/crewProcess.ts',
        // The name by which the helper is started beside whatever starts it.
        'helper.worker': 'src/helperWorker.ts',
      },
      output: { entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' },
    },
  },
  ssr: { noExternal: true, external: EXTERNAL },
});
