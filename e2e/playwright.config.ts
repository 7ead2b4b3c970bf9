import { defineConfig } from '@playwright/test';

/* Debian's Chromium; as root it wants no sandbox, and none of its own errands on the network. */
const launchOptions = {
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--mute-audio',
    '--disable-extensions',
    // A name as a shop's own network has it: to a browser the loopback address is as good as HTTPS, this one is not.
    '--host-resolver-rules=MAP depot.test 127.0.0.1',
    // A spare process for each page costs as much as the page.
    '--disable-features=SpareRendererForSitePerProcess',
  ],
};

export default defineConfig({
  testDir: './src',
  fullyParallel: true,
  workers: 2,
  retries: 0,
  // Wide guards, for a machine that does other things beside; nothing waits for them.
  timeout: 120_000,
  expect: { timeout: 20_000 },
  reporter: [['line'], ['json']],
  // The service worker is let in only where the network goes: its set-up is the dearest part of a fresh page.
  use: {
    launchOptions,
    actionTimeout: 20_000,
    timezoneId: 'UTC',
    serviceWorkers: 'block',
  },
  projects: [
    {
      name: 'phone',
      use: { viewport: { width: 390, height: 844 }, hasTouch: true, colorScheme: 'dark' },
    },
    // The main jobs are done at both widths; what does not depend on width is done once.
    {
      name: 'wide',
      grep: /@both/,
      use: { viewport: { width: 1280, height: 800 }, colorScheme: 'light' },
    },
  ],
});
