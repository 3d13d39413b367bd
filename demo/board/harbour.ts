/** The harbour of Skerrymoor on a grey morning, as a still picture larger than the frame. */
import type { SKRSContext2D } from '@napi-rs/canvas';

export const HARBOUR = { width: 1920, height: 1280 };

const polygon = (
  canvas: SKRSContext2D,
  colour: string,
  points: readonly (readonly [number, number])[],
): void => {
  canvas.fillStyle = colour;
  canvas.beginPath();
  for (const [x, y] of points) canvas.lineTo(x, y);
  canvas.closePath();
  canvas.fill();
};

/** A house with a pitched roof, its door at the middle. */
function house(canvas: SKRSContext2D, x: number, y: number, wide: number, wall: string): void {
  const high = wide * 0.62;
  canvas.fillStyle = wall;
  canvas.fillRect(x, y - high, wide, high);
  polygon(canvas, '#4a4652', [
    [x - 12, y - high],
    [x + wide / 2, y - high - wide * 0.42],
    [x + wide + 12, y - high],
  ]);
  canvas.fillStyle = '#3a3238';
  canvas.fillRect(x + wide * 0.42, y - high * 0.5, wide * 0.16, high * 0.5);
  canvas.fillStyle = '#e7cf8d';
  for (const at of [0.12, 0.72])
    canvas.fillRect(x + wide * at, y - high * 0.72, wide * 0.16, high * 0.24);
}

/** Draws it over a whole canvas of its size. */
export function drawHarbour(canvas: SKRSContext2D): void {
  const { width, height } = HARBOUR;
  const sky = canvas.createLinearGradient(0, 0, 0, 700);
  sky.addColorStop(0, '#7d93a3');
  sky.addColorStop(1, '#d8cdb6');
  canvas.fillStyle = sky;
  canvas.fillRect(0, 0, width, 700);
  // Hills, the further ones paler.
  for (const [base, colour, wave] of [
    [560, '#9aa6a2', 0.0041],
    [620, '#76877f', 0.0063],
  ] as const) {
    const points: [number, number][] = [[0, 720]];
    for (let x = 0; x <= width; x += 12)
      points.push([x, base - 70 * Math.sin(x * wave) - 30 * Math.sin(x * wave * 2.7 + 1)]);
    points.push([width, 720]);
    polygon(canvas, colour, points);
  }
  const water = canvas.createLinearGradient(0, 690, 0, height);
  water.addColorStop(0, '#8fa3a6');
  water.addColorStop(1, '#3f5862');
  canvas.fillStyle = water;
  canvas.fillRect(0, 690, width, height - 690);
  // Light on the water.
  canvas.strokeStyle = 'rgb(226 220 200 / 35%)';
  canvas.lineWidth = 3;
  for (let row = 0; row < 34; row++) {
    const y = 716 + row * row * 0.46;
    const from = (row * 397) % width;
    canvas.beginPath();
    canvas.moveTo(from, y);
    canvas.lineTo(from + 90 + 7 * row, y);
    canvas.stroke();
  }
  // The quay and what stands on it.
  polygon(canvas, '#5b5148', [
    [0, 660],
    [980, 690],
    [980, 760],
    [0, 800],
  ]);
  house(canvas, 90, 668, 220, '#b98f6a');
  house(canvas, 360, 676, 180, '#8f9f8a');
  house(canvas, 590, 682, 240, '#a86f5c');
  canvas.fillStyle = '#3a3238';
  for (const x of [60, 330, 560, 860, 960]) canvas.fillRect(x, 640, 12, 190);
  // The ferry on its chain.
  canvas.strokeStyle = '#2c2a30';
  canvas.lineWidth = 6;
  canvas.setLineDash([18, 10]);
  canvas.beginPath();
  canvas.moveTo(0, 900);
  canvas.quadraticCurveTo(1300, 960, width, 860);
  canvas.stroke();
  canvas.setLineDash([]);
  polygon(canvas, '#a63d2f', [
    [1180, 850],
    [1660, 850],
    [1610, 950],
    [1230, 950],
  ]);
  canvas.fillStyle = '#efe6d2';
  canvas.fillRect(1330, 740, 190, 110);
  canvas.fillStyle = '#31437a';
  canvas.fillRect(1310, 716, 230, 26);
  canvas.fillStyle = '#4a6b78';
  for (const x of [1350, 1410, 1470]) canvas.fillRect(x, 766, 34, 36);
}
