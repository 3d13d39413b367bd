/**
 * What two general-purpose audio packages hear in a sound, for comparing: beats and onsets as JSON.
 *
 *     node bench/peers.mjs aubio|essentia SOUND.wav
 *
 * aubio is taken from PATH (Debian: aubio-tools). essentia.js is looked for in the folder that
 * `CADENCE_PEERS` names (`npm install essentia.js` there); neither is part of the application.
 */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import process from 'node:process';

const [peer, sound] = process.argv.slice(2);

/** One number a line, as aubio prints them. */
const lines = (command) =>
  execFileSync(command, ['-i', sound], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] })
    .split('\n')
    .map(Number.parseFloat)
    .filter(Number.isFinite);

/** The samples of a 16-bit WAV of one channel at 44.1 kHz. */
function samplesOf(file) {
  const bytes = readFileSync(file);
  const data = bytes.indexOf('data') + 8;
  return Float32Array.from(
    { length: (bytes.length - data) >> 1 },
    (_, at) => bytes.readInt16LE(data + 2 * at) / 32_768,
  );
}

function essentia() {
  const require = createRequire(join(process.env.CADENCE_PEERS ?? '.', 'x.js'));
  // Named so that nothing takes it for a dependency.
  const name = 'essentia.js';
  const { Essentia, EssentiaWASM } = require(name);
  const ears = new Essentia(EssentiaWASM);
  const signal = ears.arrayToVector(samplesOf(sound));
  const beats = ears.vectorToArray(ears.BeatTrackerMultiFeature(signal).ticks);
  const onsets = ears.vectorToArray(ears.OnsetRate(signal).onsets);
  return { beats: [...beats], onsets: [...onsets] };
}

const heard =
  peer === 'aubio' ? { beats: lines('aubiotrack'), onsets: lines('aubioonset') } : essentia();
const hits = heard.onsets.map((start) => ({ start, end: null }));
process.stdout.write(
  JSON.stringify({ pulse: { beats: heard.beats.map((at) => ({ at, bar: false })) }, hits }),
);
process.exit(0);
