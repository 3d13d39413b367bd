/** Draws the still pictures of the demo: `npx tsx demo/makePictures.ts`. What it draws is committed. */
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { createCanvas } from '@napi-rs/canvas';
import { drawHarbour, HARBOUR } from './board/harbour.ts';
import { drawEmblem, EMBLEM } from './ferry/emblem.ts';

const pathOf = (name: string): string => fileURLToPath(new URL(`./${name}`, import.meta.url));

const emblem = createCanvas(EMBLEM.width, EMBLEM.height);
drawEmblem(emblem.getContext('2d'));
writeFileSync(pathOf('ferry/emblem.png'), await emblem.encode('png'));

const harbour = createCanvas(HARBOUR.width, HARBOUR.height);
drawHarbour(harbour.getContext('2d'));
writeFileSync(pathOf('board/harbour.webp'), await harbour.encode('webp', 82));
