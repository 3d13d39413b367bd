/**
 * Packs the acoustic model into the file that ships: `npx tsx packages/core/acoustic/pack.ts MODEL`, where MODEL is
 * the folder of the Debian package `pocketsphinx-en-us`. What is in the packed file is said in `unpack.ts`.
 *
 * The tree of triphones becomes one plain table; a triphone that the model lacks takes the states of the same one
 * elsewhere in a word, then of one beside silence, then of the phone alone.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gzipSync } from 'fflate';
import {
  DENSITIES,
  PLACES,
  STATES,
  STREAMS,
  WIDTH,
  type PackedHead,
} from '../src/weave/acousticModel.ts';

const folder = process.argv[2];
if (!folder) throw new Error('Say where the model is.');
const bytesOf = (name: string): DataView => {
  const { buffer, byteOffset, byteLength } = readFileSync(join(folder, name));
  return new DataView(buffer, byteOffset, byteLength);
};

/** Reads numbers one after the other. */
class Reader {
  at = 0;
  readonly #view: DataView;
  constructor(view: DataView) {
    this.#view = view;
  }
  int32(): number {
    this.at += 4;
    return this.#view.getInt32(this.at - 4, true);
  }
  int16(): number {
    this.at += 2;
    return this.#view.getInt16(this.at - 2, true);
  }
  byte(): number {
    this.at += 1;
    return this.#view.getUint8(this.at - 1);
  }
  float(): number {
    this.at += 4;
    return this.#view.getFloat32(this.at - 4, true);
  }
  many<T>(count: number, read: () => T): T[] {
    return Array.from({ length: count }, read);
  }
  text(): string {
    let text = '';
    for (let byte = this.byte(); byte !== 0; byte = this.byte()) text += String.fromCharCode(byte);
    return text;
  }
  pastHeader(): void {
    let line = '';
    while (!line.endsWith('endhdr\n')) line += String.fromCharCode(this.byte());
  }
}

/** The floats of `means`, `variances` or `transition_matrices`, after so many numbers that tell their shape. */
function floatsOf(name: string, shape: number): number[] {
  const reader = new Reader(bytesOf(name));
  reader.pastHeader();
  reader.many(shape + 1, () => reader.int32());
  return reader.many(reader.int32(), () => reader.float());
}

/** Numbers as 16 bits each, and what each bit is worth. */
function asShorts(values: readonly number[]): [Int16Array, number] {
  const scale = values.reduce((most, value) => Math.max(most, Math.abs(value)), 0) / 32_767;
  return [Int16Array.from(values, (value) => Math.round(value / scale)), scale];
}

const mdef = new Reader(bytesOf('mdef'));
mdef.at = 12 + bytesOf('mdef').getInt32(8, true);
const counts = mdef.many(10, () => mdef.int32());
const [phones = 0, all = 0, , , senones = 0, , sequences = 0, , nodes = 0, silence = 0] = counts;
const names = mdef.many(phones, () => mdef.text());
mdef.at = 4 * Math.ceil(mdef.at / 4) + 8 * nodes;
const triphones = mdef.many(all, () => {
  const sequence = mdef.int32();
  mdef.int32();
  return { sequence, context: mdef.many(4, () => mdef.byte()) };
});
mdef.int32();
const states = mdef.many(sequences, () => mdef.many(STATES, () => mdef.int16()));

const key = (place: number, base: number, left: number, right: number) =>
  ((place * phones + base) * phones + left) * phones + right;
const known = new Map<number, number>();
for (const { sequence, context } of triphones.slice(phones)) {
  const [place = 0, base = 0, left = 0, right = 0] = context;
  known.set(key(place, base, left, right), sequence);
}
const places = Array.from({ length: PLACES }, (_, place) => place);
const table = new Uint16Array(PLACES * phones * phones * phones * STATES);
for (const place of places)
  for (let base = 0; base < phones; base++)
    for (let left = 0; left < phones; left++)
      for (let right = 0; right < phones; right++) {
        const candidates = [
          key(place, base, left, right),
          ...places.map((other) => key(other, base, left, right)),
          key(place, base, silence, right),
          key(place, base, left, silence),
        ];
        const found = candidates.find((candidate) => known.has(candidate));
        const sequence =
          found === undefined ? triphones[base]?.sequence : (known.get(found) as number);
        table.set(states[sequence ?? 0] ?? [], STATES * key(place, base, left, right));
      }

const weights = new Reader(bytesOf('sendump'));
for (let length = weights.int32(); length !== 0; length = weights.int32()) weights.at += length;
weights.at += 8;
// By senone, stream and density, so that those of a state lie together.
const mixed = new Uint8Array(senones * STREAMS * DENSITIES);
for (let stream = 0; stream < STREAMS; stream++)
  for (let density = 0; density < DENSITIES; density++)
    for (let senone = 0; senone < senones; senone++)
      mixed[(senone * STREAMS + stream) * DENSITIES + density] = weights.byte();

const baseOf = new Uint8Array(senones);
triphones.forEach(({ sequence, context }, at) => {
  for (const senone of states[sequence] ?? [])
    baseOf[senone] = at < phones ? at : (context[1] ?? 0);
});

const [means, meanScale] = asShorts(floatsOf('means', 3 + STREAMS));
const [variances, varianceScale] = asShorts(
  floatsOf('variances', 3 + STREAMS).map((variance) => Math.log(Math.max(variance, 1e-4))),
);
if (means.length !== phones * STREAMS * DENSITIES * WIDTH)
  throw new Error(`The model has ${String(means.length)} means.`);
const transitions = Float32Array.from(floatsOf('transition_matrices', 3));
const own = Uint16Array.from(
  triphones.slice(0, phones).flatMap(({ sequence }) => states[sequence] ?? []),
);

const head: PackedHead = { names, silence, senones, meanScale, varianceScale };
const text = new TextEncoder().encode(JSON.stringify(head));
const parts = [means, variances, transitions, own, table, baseOf, mixed].map(
  ({ buffer }) => new Uint8Array(buffer),
);
const packed = Buffer.concat([
  Uint8Array.from([text.length & 255, text.length >> 8]),
  text,
  ...parts,
]);
const path = fileURLToPath(new URL('./english.gz', import.meta.url));
const zipped = gzipSync(packed, { level: 9, mtime: 0 });
writeFileSync(path, zipped);
process.stdout.write(`${(zipped.length / 1e6).toFixed(2)} MB\n`);
