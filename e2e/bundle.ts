/** Bundles the server of the tests once a run: read from its sources, it takes three seconds a start. */
import { fileURLToPath, pathToFileURL } from 'node:url';
import { build, type Plugin } from 'vite';

const OUT = fileURLToPath(new URL('./dist', import.meta.url));

/** The bundle that starts a server for one test. */
export const SERVER = `${OUT}/serve.mjs`;

/** Files that a source finds beside itself lie beside the source, not beside the bundle. */
const whereSourcesLie: Plugin = {
  name: 'where-sources-lie',
  transform: (code, id) =>
    code.includes('import.meta.url') && !id.includes('node_modules')
      ? code.replaceAll('import.meta.url', JSON.stringify(pathToFileURL(id).href))
      : undefined,
};

export default async function bundle(): Promise<void> {
  await build({
    configFile: false,
    root: fileURLToPath(new URL('./', import.meta.url)),
    logLevel: 'warn',
    plugins: [whereSourcesLie],
    build: {
      ssr: true,
      target: 'node20',
      outDir: OUT,
      emptyOutDir: true,
      minify: false,
      rollupOptions: {
        input: { serve: fileURLToPath(new URL('./serve.ts', import.meta.url)) },
        output: { entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' },
      },
    },
    // Only what is ours is bundled.
    ssr: { noExternal: [/^@cadence\//] },
  });
}
