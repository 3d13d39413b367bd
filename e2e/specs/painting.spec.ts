/** A window, a worker and Node give the same picture to the last bit. */
import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { extname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { build } from 'vite';
import { expect, test } from '../fixtures.ts';

test.use({ content: 'empty' });

const folder = fileURLToPath(new URL('../painting/', import.meta.url));
const films = fileURLToPath(new URL('../../packages/film/samples/', import.meta.url));
const types: Readonly<Record<string, string>> = {
  '.js': 'text/javascript',
  '.wasm': 'application/wasm',
  '.html': 'text/html',
};

test('text and films are equal in a window, a worker and Node', async ({ page }) => {
  const out = await mkdtemp(join(tmpdir(), 'cadence-painting-'));
  await build({
    root: folder,
    base: '/painting/',
    logLevel: 'error',
    worker: { format: 'es' },
    build: {
      outDir: out,
      emptyOutDir: true,
      target: 'es2023',
      assetsInlineLimit: 0,
      rollupOptions: { input: join(folder, 'window.ts'), output: { entryFileNames: 'window.js' } },
    },
  });
  await page.route('**/painting/**', async (route) => {
    const path = new URL(route.request().url()).pathname.replace('/painting/', '');
    if (path === '') {
      await route.fulfill({
        contentType: 'text/html',
        body: '<script type="module" src="/painting/window.js"></script>',
      });
      return;
    }
    if (path.startsWith('films/')) {
      await route.fulfill({ body: await readFile(join(films, path.slice('films/'.length))) });
      return;
    }
    await route.fulfill({
      contentType: types[extname(path)] ?? '',
      body: await readFile(join(out, path)),
    });
  });
  const run = promisify(execFile);
  const [onNode] = await Promise.all([
    run(process.execPath, ['--import', 'tsx', join(folder, 'node.ts')]),
    page.goto('/painting/'),
  ]);
  await page.waitForFunction(() => 'painted' in window);
  const painted = await page.evaluate(() => window.painted);
  const node = JSON.parse(onNode.stdout) as Record<string, string>;
  expect(painted.length).toBe(27 + 12 + 18 + 112 + 5 + 20);
  for (const { name, window: here, worker } of painted) {
    expect({ name, digest: worker }).toEqual({ name, digest: here });
    expect({ name, digest: node[name] }).toEqual({ name, digest: here });
  }
  expect(new Set(painted.map((each) => each.window)).size).toBeGreaterThan(50);
  await rm(out, { recursive: true });
});
