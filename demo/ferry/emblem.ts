/** The emblem of the ferry: a bell under a chain, drawn in the colours of the film. */
import type { SKRSContext2D } from '@napi-rs/canvas';

export const EMBLEM = { width: 640, height: 480 };

/** Draws it in the middle of a canvas of its size, on nothing. */
export function drawEmblem(canvas: SKRSContext2D): void {
  const { width } = EMBLEM;
  const middle = width / 2;
  canvas.lineCap = 'round';
  canvas.lineJoin = 'round';
  // The chain: links in turn seen from the front and from the side.
  canvas.strokeStyle = '#c3c7d0';
  canvas.lineWidth = 11;
  for (let link = -5; link <= 5; link++) {
    const x = middle + link * 52;
    const y = 60 + 0.9 * link * link;
    canvas.beginPath();
    if (link % 2 === 0) canvas.ellipse(x, y, 34, 17, 0, 0, 2 * Math.PI);
    else {
      canvas.moveTo(x - 30, y);
      canvas.lineTo(x + 30, y);
    }
    canvas.stroke();
  }
  // The bell.
  canvas.fillStyle = '#d9b55a';
  canvas.beginPath();
  canvas.moveTo(middle - 26, 120);
  canvas.bezierCurveTo(middle - 120, 150, middle - 84, 290, middle - 150, 340);
  canvas.lineTo(middle + 150, 340);
  canvas.bezierCurveTo(middle + 84, 290, middle + 120, 150, middle + 26, 120);
  canvas.closePath();
  canvas.fill();
  canvas.fillRect(middle - 164, 346, 328, 20);
  canvas.beginPath();
  canvas.arc(middle, 398, 26, 0, 2 * Math.PI);
  canvas.fill();
  canvas.strokeStyle = '#d9b55a';
  canvas.lineWidth = 10;
  canvas.beginPath();
  canvas.arc(middle, 100, 22, 0, 2 * Math.PI);
  canvas.stroke();
  // Two waves.
  canvas.strokeStyle = '#6fa8a4';
  canvas.lineWidth = 9;
  for (const y of [440, 464]) {
    canvas.beginPath();
    for (let x = 60; x <= width - 60; x += 4) canvas.lineTo(x, y + 8 * Math.sin((x + y) / 26));
    canvas.stroke();
  }
}
