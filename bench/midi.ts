/** How long a MIDI file of very many tempo changes takes to read: `npx tsx bench/midi.ts`. */
import { writeMidi } from 'midi-file';
import { readMidi } from '@cadence/core/formats/midi/read.ts';

const CHANGES = 140_000;
const tempi = Array.from({ length: CHANGES }, (_, at) => ({
  deltaTime: at === 0 ? 0 : 24,
  type: 'setTempo' as const,
  meta: true as const,
  microsecondsPerBeat: 400_000 + (at % 997) * 100,
}));
const end = { deltaTime: 0, type: 'endOfTrack' as const, meta: true as const };
const header = { format: 0 as const, numTracks: 1, ticksPerBeat: 480 };
const bytes = Uint8Array.from(writeMidi({ header, tracks: [[...tempi, end]] }));
for (let run = 0; run < 3; run++) {
  const began = performance.now();
  const { beats } = readMidi(bytes);
  const took = Math.round(performance.now() - began);
  console.log(`${CHANGES} tempo changes, ${beats.length} beats: ${took} ms`);
}
