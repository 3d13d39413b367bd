/**
 * Compiles the kernels into a source file of the core: `npm run kernels`. With `--check` it only says whether
 * that file is what they compile into.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import asc from 'assemblyscript/asc';

const OPTIONS = { optimizeLevel: 3, noAssert: true, runtime: 'stub', enable: ['simd'] };
const path = (name) => fileURLToPath(new URL(name, import.meta.url));
const code = path('../src/listen/signal/kernelCode.ts');

const source = readFileSync(path('./kernels.ts'), 'utf8');
const { error, binary, stderr } = await asc.compileString(source, OPTIONS);
if (error || !binary) throw new Error(`The kernels cannot be compiled: ${stderr.toString()}`);
const compiled = [
  '/** The kernels, compiled: `npm run kernels` writes this file. */',
  `export const KERNEL_CODE = Uint8Array.of(${[...binary].join(',')});`,
  '',
].join('\n');
if (!process.argv.includes('--check')) writeFileSync(code, compiled);
else if (readFileSync(code, 'utf8') !== compiled) {
  process.stderr.write('The kernels have changed: npm run kernels compiles them again.\n');
  process.exitCode = 1;
}
