import type { MeasureKind, Repair } from '@keen-bleed/contract';

/** How a part was mended, in a word or two. */
export const repairWords: Readonly<Record<Repair, string>> = {
  replaced: 'replaced',
  cleaned: 'cleaned',
  reseated: 'reseated',
  remade: 'remade',
  adjusted: 'adjusted',
};

/** What was done for a while, and how it is undone. */
export const measureWords: Readonly<Record<MeasureKind, { title: string; undo: string }>> = {
  'caged-spring': { title: 'Spring caged', undo: 'Uncage it, and put the bolt back in its pocket' },
  'shop-air': { title: 'Shop air on the park line', undo: 'Take the tee out and close the line' },
  'capped-line': { title: 'Line capped', undo: 'Take the cap off and connect the line' },
  'closed-cock': { title: 'Cock closed', undo: 'Open the cock' },
  blocked: { title: 'Blocked', undo: 'Take the block out' },
};

export const stations = ['found', 'proven', 'part', 'fitted', 'retest', 'release'] as const;
/** How far a job has come. */
export type Station = (typeof stations)[number];

/** What a station is called on the rail. */
export const stationWords: Readonly<Record<Station, string>> = {
  found: 'found',
  proven: 'proven',
  part: 'part',
  fitted: 'fitted',
  retest: 'retest',
  release: 'release',
};
