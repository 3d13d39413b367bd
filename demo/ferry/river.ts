/** The drawn film: the Orran at Skerrymoor, from before dawn to dusk, and the ferry on its chain. */

export const FILM = { width: 1280, height: 720, rate: 25 } as const;

type Context = CanvasRenderingContext2D;
type Rgb = readonly [number, number, number];

/** Sky at the top, sky at the horizon, hills, water: at parts of the day. */
const DAY: readonly { at: number; sky: Rgb; glow: Rgb; hills: Rgb; water: Rgb }[] = [
  { at: 0, sky: [38, 50, 66], glow: [120, 116, 122], hills: [30, 38, 44], water: [38, 54, 64] },
  {
    at: 0.22,
    sky: [93, 116, 130],
    glow: [217, 185, 138],
    hills: [61, 76, 74],
    water: [70, 96, 106],
  },
  {
    at: 0.55,
    sky: [132, 158, 170],
    glow: [206, 206, 190],
    hills: [84, 104, 92],
    water: [88, 118, 126],
  },
  { at: 0.82, sky: [96, 98, 122], glow: [214, 140, 104], hills: [58, 58, 68], water: [78, 82, 98] },
  { at: 1, sky: [34, 38, 58], glow: [110, 84, 92], hills: [26, 28, 40], water: [34, 42, 58] },
];

const mix = (a: Rgb, b: Rgb, share: number): string =>
  `rgb(${a.map((value, at) => Math.round(value + ((b[at] ?? 0) - value) * share)).join(' ')})`;

function light(part: number): Record<'sky' | 'glow' | 'hills' | 'water', string> {
  const next = Math.max(
    1,
    DAY.findIndex((stage) => stage.at >= part),
  );
  const [a, b] = [DAY[next - 1], DAY[next]];
  if (!a || !b) throw new Error('The day has no such part.');
  const share = (part - a.at) / (b.at - a.at);
  return {
    sky: mix(a.sky, b.sky, share),
    glow: mix(a.glow, b.glow, share),
    hills: mix(a.hills, b.hills, share),
    water: mix(a.water, b.water, share),
  };
}

/** Draws the film at `time` seconds of `seconds`. */
export function drawRiver(context: Context, time: number, seconds: number): void {
  const { width, height } = FILM;
  const colours = light(Math.min(1, time / seconds));
  const horizon = 440;
  const sky = context.createLinearGradient(0, 0, 0, horizon);
  sky.addColorStop(0, colours.sky);
  sky.addColorStop(1, colours.glow);
  context.fillStyle = sky;
  context.fillRect(0, 0, width, horizon);
  drawHills(context, colours.hills, horizon);
  context.fillStyle = colours.water;
  context.fillRect(0, horizon, width, height - horizon);
  drawWater(context, time, horizon);
  drawFerry(context, time, seconds, horizon);
  drawGulls(context, time);
}

function drawHills(context: Context, colour: string, horizon: number): void {
  context.fillStyle = colour;
  context.beginPath();
  context.moveTo(0, horizon - 34);
  for (let x = 0; x <= FILM.width; x += 20)
    context.lineTo(x, horizon - 46 - 30 * Math.sin(x / 190) - 16 * Math.sin(x / 71 + 2));
  context.lineTo(FILM.width, horizon + 6);
  context.lineTo(0, horizon + 6);
  context.fill();
}

function drawWater(context: Context, time: number, horizon: number): void {
  context.strokeStyle = 'rgb(255 255 255 / 20%)';
  context.lineWidth = 3;
  for (let wave = 0; wave < 9; wave++) {
    const y = horizon + 34 + wave * 28;
    const x = ((wave * 347 + time * (9 + wave * 2)) % (FILM.width + 500)) - 400;
    context.beginPath();
    context.moveTo(x, y);
    context.lineTo(x + 180 + wave * 24, y);
    context.stroke();
  }
}

/** The ferry goes over and back on its chain, and rests at either bank. */
function drawFerry(context: Context, time: number, seconds: number, horizon: number): void {
  const going = 0.5 - 0.5 * Math.cos((2 * Math.PI * time) / (seconds / 2));
  const x = 260 + going * 700;
  const y = horizon + 8 + 2.5 * Math.sin(time * 1.7);
  context.strokeStyle = '#22282c';
  context.lineWidth = 5;
  context.setLineDash([11, 5]);
  context.beginPath();
  context.moveTo(0, horizon + 44);
  context.quadraticCurveTo(x / 2, horizon + 70, x - 110, y + 30);
  context.moveTo(x + 110, y + 30);
  context.quadraticCurveTo((x + FILM.width) / 2, horizon + 66, FILM.width, horizon + 40);
  context.stroke();
  context.setLineDash([]);
  context.fillStyle = '#8d3b2c';
  context.beginPath();
  context.moveTo(x - 134, y - 8);
  context.lineTo(x + 134, y - 8);
  context.lineTo(x + 108, y + 62);
  context.lineTo(x - 108, y + 62);
  context.fill();
  context.fillStyle = '#ece3cf';
  context.fillRect(x - 78, y - 74, 98, 66);
  context.fillRect(x + 52, y - 108, 17, 100);
  context.fillStyle = '#46606a';
  for (let window = 0; window < 3; window++) context.fillRect(x - 68 + window * 30, y - 58, 20, 22);
}

function drawGulls(context: Context, time: number): void {
  context.strokeStyle = 'rgb(236 227 207 / 85%)';
  context.lineWidth = 3;
  for (let gull = 0; gull < 4; gull++) {
    const x = ((gull * 390 + time * (26 + gull * 7)) % (FILM.width + 200)) - 100;
    const y = 120 + gull * 34 + 18 * Math.sin(time * 0.6 + gull * 2);
    const flap = 9 * Math.sin(time * 5 + gull);
    context.beginPath();
    context.moveTo(x - 17, y - flap);
    context.quadraticCurveTo(x - 7, y - 9, x, y);
    context.quadraticCurveTo(x + 7, y - 9, x + 17, y - flap);
    context.stroke();
  }
}
