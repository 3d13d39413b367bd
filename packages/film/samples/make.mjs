/**
 * Makes the sample films anew: `node packages/film/samples/make.mjs`, where ffmpeg is installed. Each has its frame number
 * drawn into it, as eight squares in a row: the lowest bit at the left, light for 1. Below them are patches of known
 * colours.
 */
import { Buffer } from 'node:buffer';
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const [WIDTH, HEIGHT, SQUARE] = [128, 64, 16];
const PATCHES = [
  [200, 40, 40],
  [40, 180, 60],
  [50, 60, 200],
  [220, 190, 60],
];

function frame(number) {
  const pixels = Buffer.alloc(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const bit = (number >> Math.floor(x / SQUARE)) & 1;
      const colour =
        y < HEIGHT / 2 ? Array(3).fill(bit ? 235 : 20) : PATCHES[Math.floor((4 * x) / WIDTH)];
      colour.forEach((value, at) => (pixels[3 * (y * WIDTH + x) + at] = value));
    }
  return pixels;
}

const FRAMES = Buffer.concat(Array.from({ length: 120 }, (_, at) => frame(at)));
const path = (name) => fileURLToPath(new URL(name, import.meta.url));

function make(name, rate, ...options) {
  const raw = ['-f', 'rawvideo', '-pix_fmt', 'rgb24', '-s', `${WIDTH}x${HEIGHT}`];
  const source = [...raw, '-r', String(rate), '-i', '-'];
  const { status, stderr } = spawnSync(
    'ffmpeg',
    ['-y', '-loglevel', 'error', ...source, '-bitexact', ...options, path(name)],
    { input: FRAMES },
  );
  if (status !== 0) throw new Error(`${name}: ${stderr.toString()}`);
}

const tagged = (matrix, range = 'tv') => [
  '-vf',
  `scale=out_color_matrix=${matrix}:out_range=${range}:flags=accurate_rnd+full_chroma_int`,
  '-pix_fmt',
  'yuv420p',
  '-colorspace',
  matrix === 'bt601' ? 'smpte170m' : matrix,
  '-color_range',
  range,
];
const h264 = ['-c:v', 'libx264', '-crf', '18', '-g', '48', '-bf', '3', '-preset', 'slow'];

make('bframes-25.mp4', 25, ...tagged('bt709'), ...h264);
make('drop-2997.mp4', '30000/1001', ...tagged('bt601'), ...h264);
make('cinema-23976.mov', '24000/1001', ...tagged('bt709'), ...h264);
make('fast-50.mkv', 50, ...tagged('bt709'), ...h264);
make(
  'vp9-2997.webm',
  '30000/1001',
  ...tagged('bt709'),
  '-c:v',
  'libvpx-vp9',
  '-crf',
  '20',
  '-b:v',
  '0',
);
make('full-range.mp4', 25, ...tagged('bt709', 'pc'), ...h264);
// Frames of three lengths in turn: 20, 60 and 100 ms.
const TURNS = 'setpts=(9*floor(N/3)+eq(mod(N\\,3)\\,1)+4*eq(mod(N\\,3)\\,2)+0.1)/50/TB';
const varied = tagged('bt709').with(1, `${tagged('bt709')[1]},${TURNS}`);
make('variable.mp4', 50, ...varied, '-fps_mode', 'passthrough', ...h264, '-bf', '0');
make('late.mp4', 25, ...tagged('bt709'), ...h264, '-output_ts_offset', '0.5');
make(
  'narrow-pixels.mp4',
  25,
  '-vf',
  'scale=out_color_matrix=bt709:out_range=tv,setsar=3/2',
  '-pix_fmt',
  'yuv420p',
  '-colorspace',
  'bt709',
  ...h264,
);
const again = (name, from, before, after) => {
  const { status, stderr } = spawnSync('ffmpeg', [
    '-y',
    '-loglevel',
    'error',
    ...before,
    '-i',
    path(from),
    '-bitexact',
    '-c',
    'copy',
    ...after,
    path(name),
  ]);
  if (status !== 0) throw new Error(`${name}: ${stderr.toString()}`);
};
again('turned.mp4', 'bframes-25.mp4', [], ['-metadata:s:v', 'rotate=90']);
// Begins 20 frames in, in the middle of a group of pictures: an edit list hides what is before.
again('cut.mp4', 'bframes-25.mp4', ['-ss', '0.8'], []);
