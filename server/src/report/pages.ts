import { releasePage } from './releasePage';
import { runReport } from './runReport';
import { sharedJob } from './sharedJob';
import { visitReport } from './visitReport';

/** Every page that goes out of the product, by its name. */
export const pages = {
  run: runReport,
  visit: visitReport,
  release: releasePage,
  share: sharedJob,
} as const;

export type PageName = keyof typeof pages;
/** What a page is made of. */
export type PageOf<N extends PageName> = Parameters<(typeof pages)[N]>[0];
/** What comes of it. */
export type Made<N extends PageName> = Awaited<ReturnType<(typeof pages)[N]>>;
