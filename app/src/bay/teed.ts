/** A gauge teed in at a place of the rig; it stays on the cab's ladder until it is taken off. */
export interface Teed {
  /** The place, by its number in the network. */
  node: number;
  title: string;
}

/** As many hoses as a gauge cart has, and as the ladder has room for: the oldest comes off for a third. */
export const MOST_TEED = 2;

/** What teed gauges are called on the ladder. */
export const LETTERS = ['A', 'B'] as const;
