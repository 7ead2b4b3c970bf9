import type { Verdict } from '@keen-bleed/contract';

/** What a verdict is called, on every screen, in reports and in calendars. */
export const verdictWords: Readonly<Record<Verdict, string>> = {
  pass: 'pass',
  fail: 'fail',
  'cant-tell': 'can’t tell yet',
  incomplete: 'not finished',
};
