import { deviceWords } from './deviceWords';

/* User agents as browsers send them, versions aside. Values from memory. */
const WEBKIT = 'AppleWebKit/605.1.15 (KHTML, like Gecko)';
it.each([
  [
    `Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) ${WEBKIT} Version/18.0 Mobile/15E148 Safari/604.1`,
    'Safari on iPhone',
  ],
  [
    `Mozilla/5.0 (iPad; CPU OS 18_0 like Mac OS X) ${WEBKIT} CriOS/130.0 Mobile/15E148 Safari/604.1`,
    'Chrome on iPad',
  ],
  [
    'Mozilla/5.0 (Linux; Android 14; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/130.0 Mobile Safari/537.36',
    'Chrome on Android phone',
  ],
  [
    'Mozilla/5.0 (Linux; Android 14; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/130.0 Safari/537.36',
    'Chrome on Android tablet',
  ],
  [
    'Mozilla/5.0 (Linux; Android 14; K) AppleWebKit/537.36 (KHTML, like Gecko) SamsungBrowser/26.0 Chrome/122.0 Mobile Safari/537.36',
    'Samsung browser on Android phone',
  ],
  [
    'Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:132.0) Gecko/20100101 Firefox/132.0',
    'Firefox on Windows',
  ],
  [
    'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/130.0 Safari/537.36 Edg/130.0',
    'Edge on Windows',
  ],
  [
    `Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) ${WEBKIT} Version/18.0 Safari/605.1.15`,
    'Safari on Mac',
  ],
  [
    'Mozilla/5.0 (X11; CrOS x86_64 14541.0.0) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/130.0 Safari/537.36',
    'Chrome on Chromebook',
  ],
  ['Mozilla/5.0 (X11; Linux x86_64; rv:132.0) Gecko/20100101 Firefox/132.0', 'Firefox on Linux'],
  ['Firefox/1.0', 'Firefox'],
  ['something on Windows', 'Windows'],
  ['', 'A device that does not say what it is'],
])('%s', (agent, said) => {
  expect(deviceWords(agent)).toBe(said);
});
