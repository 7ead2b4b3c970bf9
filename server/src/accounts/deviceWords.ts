const BROWSERS: readonly (readonly [RegExp, string])[] = [
  [/\bEdg(e|A|iOS)?\//, 'Edge'],
  [/\bOPR\//, 'Opera'],
  [/\bSamsungBrowser\//, 'Samsung browser'],
  [/\b(Firefox|FxiOS)\//, 'Firefox'],
  [/\b(HeadlessChrome|Chrome|CriOS|Chromium)\//, 'Chrome'],
  [/\bSafari\//, 'Safari'],
];
const SYSTEMS: readonly (readonly [RegExp, string])[] = [
  [/\biPhone\b/, 'iPhone'],
  [/\biPad\b/, 'iPad'],
  [/\bAndroid\b.*\bMobile\b/, 'Android phone'],
  [/\bAndroid\b/, 'Android tablet'],
  [/\bWindows\b/, 'Windows'],
  [/\bMac OS X\b/, 'Mac'],
  [/\bCrOS\b/, 'Chromebook'],
  [/\bLinux\b/, 'Linux'],
];

const first = (list: typeof BROWSERS, agent: string) =>
  list.find(([pattern]) => pattern.test(agent))?.[1];

/**
 * What a browser says of itself, in the few words by which its owner knows it again, such as `Firefox on Windows`.
 * It can say what it likes: nothing rests on it.
 */
export function deviceWords(userAgent: string): string {
  const browser = first(BROWSERS, userAgent);
  const system = first(SYSTEMS, userAgent);
  return browser && system
    ? `${browser} on ${system}`
    : (browser ?? system ?? 'A device that does not say what it is');
}
