import type { GradedEffect } from '../graded';

/** How a figure differs from one sound rig to the next. */
export type Law =
  /** Normal, cut off at two deviations; the effects' figures stand for 0 and for one deviation. */
  | 'normal'
  /** Even; the effects' figures stand for its two ends. */
  | 'even';

/** One figure in which sound rigs differ from what is on paper. Data, like a fault. */
export interface Nuisance {
  id: string;
  law: Law;
  /** Between these, where the law reaches further, in the measure of the effects. */
  least?: number;
  most?: number;
  does: readonly GradedEffect[];
}
