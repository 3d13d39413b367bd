/** Draws in the window and in a worker, and leaves both for the test to read. */
import { drawHere } from './browser.ts';
import type { Drawn } from './samples.ts';

declare global {
  interface Window {
    painted: Promise<{ name: string; window: string; worker: string }[]>;
  }
}

async function digest({ pixels }: Drawn): Promise<string> {
  const hash = await crypto.subtle.digest('SHA-256', new Uint8Array(pixels));
  return Array.from(new Uint8Array(hash), (byte) => byte.toString(16).padStart(2, '0')).join('');
}

async function both() {
  const worker = new Worker(new URL('./worker.ts', import.meta.url), { type: 'module' });
  const [here, there] = await Promise.all([
    drawHere(),
    new Promise<Drawn[]>((done, fail) => {
      worker.onmessage = ({ data }: MessageEvent<Drawn[]>) => done(data);
      worker.onerror = () => fail(new Error('The worker failed.'));
    }),
  ]);
  return Promise.all(
    here.map(async (drawn, at) => ({
      name: drawn.name,
      window: await digest(drawn),
      worker: await digest(there[at] as Drawn),
    })),
  );
}

window.painted = both();
