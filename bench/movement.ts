/**
 * How fast moving text is laid out and played: `npx tsx bench/movement.ts` (after `npm run build`).
 *
 * The scene of a programme of 10,000 cues that have a pattern, on Node: 10,000 frames that follow each other, 2,000 instants
 * at random, each in a cue that was never laid out, and the same once more. Then 40 words that all move at once, with
 * outline and shadow, over the demo's film at 1280 × 720 while it plays in Chromium without a graphics card; and the same
 * with ten of them blurred.
 */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium, type Page } from '@playwright/test';
import { COMES_IN, framesLong, type Move, type Movement } from '@cadence/core/movement/movement.ts';
import { chance } from '@cadence/core/movement/random.ts';
import { patternsAtHand } from '@cadence/core/programme/patterns.ts';
import type { Cue, Programme, TextStyle } from '@cadence/core/programme/programme.ts';
import { longProgramme } from '@cadence/core/programme/samples.ts';
import { sceneAt } from '@cadence/core/scene/sceneAt.ts';
import { linesOf } from '@cadence/core/text/lines.ts';
import { frameLength } from '@cadence/core/time/frameRate.ts';
import { fromSeconds, ZERO, type Ticks } from '@cadence/core/time/ticks.ts';
import { nodeShelf } from '@cadence/node/fonts.ts';
import { start } from '@cadence/server/start.ts';
import { seedDemo } from '../demo/seed.ts';

const show = (name: string, value: string) => console.log(`${name.padEnd(52)} ${value}`);
const at = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;

/** The scene of many cues with a pattern, at instants by chance. */
async function scenes(): Promise<void> {
  const shelf = nodeShelf();
  const long = longProgramme(10_000);
  for (const name of ['Splice', 'Ripple', 'Eddy']) {
    const pattern = patternsAtHand(long).find((each) => each.name === name);
    const [strand] = Object.values(long.strands);
    if (!pattern || !strand) throw new Error(`There is no ${name}.`);
    const family = pattern.look.family ?? strand.style.family;
    await shelf.prepare(
      family,
      Object.values(long.cues).flatMap(({ text }) => text),
    );
    const programme: Programme = {
      ...long,
      patterns: { [pattern.id]: pattern },
      strands: { [strand.id]: { ...strand, pattern: pattern.id } },
      cues: Object.fromEntries(Object.entries(long.cues).map(([id, cue]) => [id, { ...cue }])),
    };
    const next = chance(5);
    const instants = Array.from(
      { length: 2000 },
      () => Math.floor(next() * programme.facts.length) as Ticks,
    );
    const inOrder = Array.from(
      { length: 10_000 },
      (_, at) => (at * frameLength(programme.facts.frameRate)) as Ticks,
    );
    const timed = (of: readonly Ticks[]) =>
      of
        .map((time) => {
          const begun = performance.now();
          sceneAt(programme, time, shelf);
          return performance.now() - begun;
        })
        .sort((a, b) => a - b);
    for (const [turn, of] of [
      ['frame by frame', inOrder],
      ['at random', instants],
      ['the same again', instants],
    ] as const) {
      const times = timed(of);
      show(
        `scene of 10,000 cues, ${name}, ${turn}`,
        `median ${at(times, 0.5).toFixed(2)} ms, 99 % within ${at(times, 0.99).toFixed(2)} ms`,
      );
    }
  }
}

const WORDS =
  'slack water hold the chain the tide forgets which way it came somebody has to oil the bell and the ferry wakes before the village does you hear the winch first then the gulls complaining about the winch again'
    .split(' ')
    .slice(0, 40);
const LOOK: Partial<TextStyle> = {
  ...{ size: 40, outlineWidth: 3, bold: true, across: 'centre', down: 'middle' },
  shadow: { colour: '#000000', opacity: 0.7, across: 2, down: 3, blur: 4 },
};
const SECONDS = 12;

/** Words that all move from the first frame to the last. */
const moving = (blurred: boolean): Movement => {
  const moves: Move[] = [
    { what: 'opacity', from: 0.2, easing: 'linear' },
    { what: 'scale', from: 0.5, easing: 'linear' },
    { what: 'place', in: 'em', from: 1.5, angle: 90, easing: 'linear' },
    { what: 'turn', from: -12, easing: 'linear' },
    ...(blurred ? [{ what: 'blur', from: 8, easing: 'linear' } as const] : []),
  ];
  const takes = framesLong(SECONDS * 25);
  return {
    comesIn: { ...COMES_IN, by: 'word', when: 'start', takes, moves },
    stays: [],
    goes: null,
  };
};

const data = await mkdtemp(join(tmpdir(), 'cadence-bench-'));
const web = fileURLToPath(new URL('../packages/web/dist', import.meta.url));
const running = await start({ data, port: 0, web, logLevel: 'silent' });
await seedDemo(running);
const [ferry] = (await (await fetch(`${running.address}/api/programmes`)).json()) as {
  id: string;
}[];

/** The film with so many words, some of them blurred, as cues that lie over each other. */
async function kept(blurred: number): Promise<string> {
  const base = await running.keeper.programme(ferry?.id ?? '');
  const strand = Object.values(base.strands).find(({ kind }) => kind === 'subtitle');
  if (!strand) throw new Error('There is no strand of subtitles.');
  const cue = (id: string, words: readonly string[], down: 'top' | 'middle'): Cue => ({
    ...{ id, strand: strand.id, start: ZERO, end: fromSeconds(SECONDS), words: [] },
    text: linesOf(
      words
        .map((word, place) => (place % 7 === 6 ? `${word}\n` : `${word} `))
        .join('')
        .trim(),
    ),
    style: { ...LOOK, down },
    movement: moving(id === 'blurred'),
  });
  const cues = [
    cue('plain', WORDS.slice(blurred), 'middle'),
    ...(blurred > 0 ? [cue('blurred', WORDS.slice(0, blurred), 'top')] : []),
  ];
  return running.keeper.keepNew({
    ...base,
    strands: { [strand.id]: { ...strand, overlapAllowed: true } },
    cues: Object.fromEntries(cues.map((each) => [each.id, each])),
  });
}

/** The time from each drawn frame of the programme to the next, in milliseconds. */
const steps = (page: Page): Promise<number[]> =>
  page.evaluate(
    (seconds) =>
      new Promise<number[]>((done) => {
        const code = document.querySelector('output');
        const found: number[] = [];
        let [last, shown] = [performance.now(), code?.textContent];
        const until = last + seconds * 1000;
        const look = (now: number) => {
          if (code?.textContent !== shown) {
            found.push(now - last);
            [last, shown] = [now, code?.textContent];
          }
          if (now < until) requestAnimationFrame(look);
          else done(found);
        };
        requestAnimationFrame(look);
      }),
    SECONDS - 3,
  );

if (!process.argv.includes('play')) await scenes();
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
for (const blurred of [0, 10]) {
  const page = await browser.newPage({ viewport: { width: 1680, height: 1000 } });
  // What tsx names functions with is not in the page.
  await page.addInitScript('window.__name = (named) => named');
  await page.goto(`${running.address}/p/${await kept(blurred)}/patterns`);
  await page.getByRole('img', { name: 'Picture with text' }).waitFor();
  await page.waitForTimeout(3000);
  const width = await page
    .getByRole('img', { name: 'Picture with text' })
    .evaluate((canvas: HTMLCanvasElement) => canvas.width);
  await page.keyboard.press('Home');
  await page.getByRole('button', { name: 'Play' }).click();
  const found = (await steps(page)).slice(5).sort((a, b) => a - b);
  const mean = found.reduce((sum, step) => sum + step, 0) / found.length;
  show(
    `40 words moving, ${blurred} blurred, ${width} pixels wide`,
    `${(1000 / mean).toFixed(1)} frames a second, 99 % within ${at(found, 0.99).toFixed(0)} ms, ${found.filter((step) => step > 60).length} of ${found.length} steps over 60 ms`,
  );
  await page.close();
}
await browser.close();
await running.stop();
await rm(data, { recursive: true });
process.exit();
