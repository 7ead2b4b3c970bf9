import type { PlumbedPart } from '../rig/plumbing/plumbing';

/** Room of one slot, px: along the vehicle and across it. */
export const PITCH = {
  up: { along: 74, across: 52 },
  left: { along: 62, across: 62 },
} as const;
/** At least so large is what a finger reaches, px. */
export const TARGET = 44;
/** Lettering of labels, px. */
export const LABEL = { size: 11, line: 13, perLetter: 6.1 } as const;
/** Behind a unit, where its couplers reach to the next. */
export const BETWEEN_UNITS = 34;
/** Room for a unit's title in front of it. */
export const HEAD = 30;

/** Size of a part's graphic symbol with the vehicle's front up, px: width across, height along. */
export function symbolSize({ role, wheel }: PlumbedPart): { across: number; along: number } {
  if (wheel) return { across: 36, along: 22 };
  switch (role) {
    case 'tank':
      return { across: 42, along: 50 };
    case 'relay':
    case 'relay-emergency':
    case 'park-relay':
    case 'foot-valve':
    case 'park-control':
    case 'trailer-supply-control':
    case 'trailer-control-valve':
    case 'hand-valve':
    case 'hand-brake-valve':
    case 'load-sensing':
    case 'modulating-valve':
      return { across: 42, along: 18 };
    case 'tractor-protection':
    case 'antilock-modulator':
      return { across: 32, along: 18 };
    case 'compressor':
    case 'dryer':
      return { across: 30, along: 30 };
    case 'line':
      return { across: 8, along: 8 };
    case 'double-check':
      return { across: 28, along: 16 };
    default:
      return { across: 22, along: 20 };
  }
}
