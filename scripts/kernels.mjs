/**
 * Compiles the kernels into source files: `npm run kernels`. With `--check` it only says whether
 * those files are what they compile into.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import asc from 'assemblyscript/asc';

const OPTIONS = { optimizeLevel: 3, noAssert: true, runtime: 'stub', enable: ['simd'] };
/** From what, into what. */
const KERNELS = [
  ['core/kernels/kernels.ts', 'core/src/listen/signal/kernelCode.ts'],
  ['film/kernels/colour.ts', 'film/src/colourCode.ts'],
];

for (const [from, into] of KERNELS) {
  const path = (name) => fileURLToPath(new URL(`../packages/${name}`, import.meta.url));
  const source = readFileSync(path(from), 'utf8');
  const { error, binary, stderr } = await asc.compileString(source, OPTIONS);
  if (error || !binary) throw new Error(`${from} cannot be compiled: ${stderr.toString()}`);
  const compiled = [
    '/** The kernels, compiled: `npm run kernels` writes this file. */',
    `export const KERNEL_CODE = Uint8Array.of(${[...binary].join(',')});`,
    '',
  ].join('\n');
  if (!process.argv.includes('--check')) writeFileSync(path(into), compiled);
  else if (readFileSync(path(into), 'utf8') !== compiled) {
    process.stderr.write(`${from} has changed: npm run kernels compiles it again.\n`);
    process.exitCode = 1;
  }
}
