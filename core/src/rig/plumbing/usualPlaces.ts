import type { PartPlace } from './plumbing';

/** Row and column by a part's id; rows of axles are added where they stand. */
type Places = Readonly<Record<string, readonly [row: number, column: number]>>;

/** In front of, at and behind the axles of a powered unit. A row is a hand's breadth on the drawing, not a measure. */
export const POWERED: Places = {
  compressor: [0, -2],
  governor: [0, -1],
  gauge: [0, 0],
  'park-control': [0, 1],
  'hand-brake-valve': [0, 1],
  'trailer-supply-control': [0, 2],
  'discharge-line': [1, -2],
  'pre-cleaner': [1, -1],
  'foot-valve': [1, 0],
  'dash-feed': [1, 1],
  'hand-valve': [1, 2],
  dryer: [2, -2],
  'stop-lamp-switch': [2, -1],
  'primary-stop-lamp-switch': [2, -1],
  'secondary-stop-lamp-switch': [2, 0],
  'dash-double-check': [2, 1],
  'hand-double-check': [2, 2],
  'front-quick-release': [3, 0],
  'front-load-sensing': [3, -1],
  antilock: [3, 1],
  // Rows from here on come behind the front axles.
  'safety-valve': [10, -2],
  'foot-double-check': [10, 0],
  'trailer-control-valve': [10, 1],
  'supply-low-air-switch': [10, -1],
  'auxiliary-compressor': [10, -3],
  'supply-tank': [11, -3],
  'supply-drain': [11, -2],
  'secondary-check': [11, 1],
  'secondary-drain': [11, 2],
  'secondary-tank': [11, 3],
  'third-circuit': [11, 0],
  'secondary-low-air-switch': [10, 2],
  'primary-check': [12, -2],
  'primary-drain': [13, -2],
  'primary-tank': [12, -3],
  'primary-low-air-switch': [12, -1],
  accessories: [12, 2],
  'park-line': [12, 1],
  suspension: [13, 3],
  horn: [12, 3],
  wiper: [13, 2],
  door: [13, 1],
  seat: [10, 3],
  'tyre-inflation': [13, 0],
  'anti-compounding': [13, 1],
  'modulating-valve': [14, -1],
  'park-relay': [14, 0],
  'rear-control-line': [13, 0],
  // Between and behind the rear axles.
  'rear-relay': [21, 0],
  'load-sensing': [21, -1],
  'tractor-protection': [40, 0],
  'trailer-supply-line': [40, -1],
  'trailer-service-line': [40, 1],
};

export const TOWED: Places = {
  'supply-coupler': [0, -1],
  'service-coupler': [0, 1],
  'supply-line': [1, -1],
  'service-line': [1, 1],
  'tank-check': [10, -2],
  tank: [10, -3],
  drain: [11, -2],
  'spring-line': [10, -1],
  suspension: [10, 3],
  'tyre-inflation': [10, 2],
  'load-sensing': [11, 0],
  relay: [21, 0],
  antilock: [21, 1],
  'supply-cock': [40, -1],
  'service-cock': [40, 1],
};

/** Where the axles stand: the first rows of front and rear ones. */
export const AXLE_ROWS = { front: 3, rear: 20 } as const;

/** An axle's row: the second front axle right behind the first, rear ones with a row between for what hangs there. */
export const axleRow = (end: 'front' | 'rear', axle: number): number =>
  AXLE_ROWS[end] + axle * (end === 'front' ? 1 : 2);

/** Where a wheel's chamber sits beside its wheel. */
export const wheelPlace = (
  end: 'front' | 'rear',
  axle: number,
  side: 'left' | 'right',
): PartPlace => ({ row: axleRow(end, axle), column: side === 'left' ? -2 : 2 });
