import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  globalSetup: './fixtures/baked-archive.ts',
  testMatch: '**/*.e2e.ts',
  timeout: 150000,
  expect: { timeout: 30000 },
  fullyParallel: false,
  workers: 2,
  retries: process.env['CI'] ? 1 : 0,
  reporter: process.env['STRAVEL_E2E_REPORT']
    ? [['list'], ['json', { outputFile: process.env['STRAVEL_E2E_REPORT'] }]]
    : [['list']],
  use: {
    actionTimeout: 60000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        // Chromium lays pages together several times as fast without its software for graphics cards.
        '--disable-gpu-compositing',
        '--disable-gpu-rasterization',
        // Chromium lays pages together several times as fast without its software for graphics cards.
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
