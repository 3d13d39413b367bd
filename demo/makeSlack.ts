/**
 * Makes the song of the demo: `npx tsx demo/makeSlack.ts`, then `npx tsx demo/hear.ts`.
 *
 * Needs fluidsynth with the FluidR3 sound font, festival with a voice, numpy and ffmpeg (Debian's packages fluidsynth,
 * fluid-soundfont-gm, festival, festvox-kallpc16k, python3-numpy, ffmpeg). What it makes is committed.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { writeMidi } from 'midi-file';
import { LINES, notes, PROGRAMS, songLength, sungLines, TEMPO } from './slack/song.ts';

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
// The voice: the lines are spoken, taken apart and put to the tune (`training/singing.py`), in the middle of the sound.
const training = (name: string) => fileURLToPath(new URL(`../training/${name}`, import.meta.url));
const tune = join(scratch, 'tune.json');
const voice = join(scratch, 'voice.wav');
writeFileSync(tune, JSON.stringify(sungLines()));
const spoken = join(scratch, 'spoken');
run('python3', [training('singing.py'), 'say', spoken, 'kal_diphone', ...LINES]);
run('npx', ['tsx', training('phones.ts'), scratch]);
run('python3', [training('singing.py'), 'tune', spoken, tune, voice]);
const mixed =
  '[1]aresample=48000,highpass=90,aecho=0.9:0.5:60|140:0.1|0.05,volume=0.9,pan=stereo|c0=c0|c1=c0[v];' +
  '[0]volume=0.7[m];[m][v]amix=inputs=2:duration=first:normalize=0,alimiter=limit=0.9';
const length = ['-t', songLength().toFixed(2)];
const to = join(folder, 'slack-water.opus');
run('ffmpeg', [
  ...['-y', '-v', 'error', '-i', wav, '-i', voice, '-filter_complex', mixed],
  ...[...length, '-b:a', '72k', to],
]);
rmSync(scratch, { recursive: true });
