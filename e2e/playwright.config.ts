import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: './specs',
  globalSetup: './bundle.ts',
  workers: 2,
  fullyParallel: true,
  // They end what hangs. The machine may be four times as slow as a quiet one.
  timeout: 240_000,
  expect: { timeout: 60_000 },
  outputDir: '../test-results',
  reporter: process.env.CADENCE_E2E_REPORT ? [['list'], ['json']] : 'list',
  use: {
    viewport: { width: 1280, height: 800 },
    trace: 'off',
    // Windows and menus are there, or gone, at once: a press cannot fall in between.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--autoplay-policy=no-user-gesture-required',
      ],
    },
  },
});
