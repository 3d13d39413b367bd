/**
 * Makes the song of the demo: `npx tsx demo/makeSlack.ts`, then `npx tsx demo/hear.ts`.
 *
 * Needs fluidsynth with the FluidR3 sound font and ffmpeg (Debian's packages fluidsynth, fluid-soundfont-gm,
 * ffmpeg). What it makes is committed.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { writeMidi } from 'midi-file';
import { notes, PROGRAMS, songLength, TEMPO } from './slack/song.ts';

const QUARTER = 480;
const FONT = '/usr/share/sounds/sf2/FluidR3_GM.sf2';
const folder = fileURLToPath(new URL('./slack/', import.meta.url));
const scratch = mkdtempSync(join(tmpdir(), 'slack-'));

function run(command: string, args: string[]): void {
  const { status, stderr } = spawnSync(command, args, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`${command} failed: ${stderr}`);
}

const events = notes().flatMap(({ at, length, channel, pitch, velocity }) => [
  { tick: Math.round(at * QUARTER), on: true, channel, pitch, velocity },
  { tick: Math.round((at + length) * QUARTER), on: false, channel, pitch, velocity: 0 },
]);
events.sort((a, b) => a.tick - b.tick || Number(a.on) - Number(b.on));
let tick = 0;
const track = [
  { deltaTime: 0, type: 'setTempo' as const, microsecondsPerBeat: Math.round(6e7 / TEMPO) },
  ...Object.entries(PROGRAMS).map(([channel, programNumber]) => ({
    deltaTime: 0,
    type: 'programChange' as const,
    channel: Number(channel),
    programNumber,
  })),
  ...events.map(({ tick: at, on, channel, pitch, velocity }) => {
    const deltaTime = at - tick;
    tick = at;
    const type = on ? ('noteOn' as const) : ('noteOff' as const);
    return { deltaTime, type, channel, noteNumber: pitch, velocity };
  }),
  { deltaTime: 0, type: 'endOfTrack' as const, meta: true as const },
];
const midi = join(scratch, 'song.mid');
const wav = join(scratch, 'song.wav');
const header = { format: 0 as const, numTracks: 1, ticksPerBeat: QUARTER };
writeFileSync(midi, Buffer.from(writeMidi({ header, tracks: [track] })));
run('fluidsynth', ['-ni', '-q', '-g', '0.6', '-r', '48000', '-F', wav, FONT, midi]);
const length = ['-t', songLength().toFixed(2)];
const to = join(folder, 'slack-water.opus');
run('ffmpeg', ['-y', '-v', 'error', '-i', wav, ...length, '-b:a', '72k', to]);
rmSync(scratch, { recursive: true });
