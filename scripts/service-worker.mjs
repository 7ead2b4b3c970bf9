/* Writes the service worker that keeps the application itself on the device, so that a reload without
   network still opens it. Records are not its business: they live in the device's own store. */
import { generateSW } from 'workbox-build';
import { runMain } from './setup/say.mjs';

await runMain(async () => {
  const folder = process.argv[2];
  await generateSW({
    globDirectory: folder,
    globPatterns: ['**/*.{html,js,css,woff2,svg,webmanifest}'],
    swDest: `${folder}/service-worker.js`,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//, /^\/schema\//],
    clientsClaim: true,
    // A newer version waits until whoever is at the device takes it: see app/src/shell.
    skipWaiting: false,
    sourcemap: false,
    inlineWorkboxRuntime: true,
    maximumFileSizeToCacheInBytes: 5_000_000,
  });
});
